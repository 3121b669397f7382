import { z } from 'zod';
import { place } from './contract';

/** A copy for a remote folder, as far as it came. */
interface Sent {
  state: string;
  remoteName: string;
  name: string;
  problem: string | null;
  address: string | null;
  addressProblem?: string | null;
  /** Its address is on the clipboard. */
  copied: boolean;
}

/** A remote folder. */
export const send = place({
  step: z.strictObject({ do: z.literal('send'), remoteId: z.uuid() }),
  label: () => 'Send',
  said({ state, remoteName, name, problem, address, addressProblem, copied }: Sent): string {
    if (state !== 'sent') {
      return `Waits for ${remoteName}. ${problem ?? ''} It is sent later by itself.`;
    }
    const seen = address === null ? addressProblem : `Others see it at ${address}`;
    const more = copied ? 'Its address is copied' : seen;
    return `Sent to ${remoteName}: ${name}${more ? `. ${more}` : ''}`;
  },
  failing: 'Not sent.',
});
