import type { Sending } from '../contracts/remote';

/** What became of a copy for a remote folder, in words. */
export function saidOf(sending: Sending): string {
  const { state, remoteName, name, problem, address, addressProblem } = sending;
  if (state !== 'sent') {
    return `Waits for ${remoteName}. ${problem ?? ''} It is sent later by itself.`;
  }
  const seen = address === null ? addressProblem : `Others see it at ${address}`;
  return `Sent to ${remoteName}: ${name}${seen ? `. ${seen}` : ''}`;
}
