import type { Sending } from '../contracts/remote';

/** What became of a copy for a remote folder, in words. @param copied its address is on the clipboard */
export function saidOf(sending: Sending, copied = false): string {
  const { state, remoteName, name, problem, address, addressProblem } = sending;
  if (state !== 'sent') {
    return `Waits for ${remoteName}. ${problem ?? ''} It is sent later by itself.`;
  }
  const seen = address === null ? addressProblem : `Others see it at ${address}`;
  const more = copied ? 'Its address is copied' : seen;
  return `Sent to ${remoteName}: ${name}${more ? `. ${more}` : ''}`;
}
