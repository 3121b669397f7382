import { z } from 'zod';
import { place } from './contract';

export const link = place({
  step: z.strictObject({ do: z.literal('link') }),
  label: () => 'Link',
  said: ({ address, copied }: { address: string; copied: boolean }) =>
    copied ? 'The link is copied' : `Link: ${address}`,
  failing: 'No link.',
});

/** The address of a link by which most can reach it: others too, where the second door is open. */
export const addressOf = (made: { address: string; openAddress: string | null }): string =>
  made.openAddress ?? made.address;
