import { z } from 'zod';
import { place } from './contract';

/** The clipboard. */
export const copy = place({
  step: z.strictObject({ do: z.literal('copy') }),
  label: () => 'Copy',
  said: (_: null) => 'Copied: paste it anywhere',
  failing: 'Not copied.',
});
