import type { Sending } from '../contracts/remote';

/** What became of a copy for a remote folder, in words. */
export const saidOf = ({ state, remoteName, name, problem }: Sending): string =>
  state === 'sent'
    ? `Sent to ${remoteName}: ${name}`
    : `Waits for ${remoteName}. ${problem ?? ''} It is sent later by itself.`;
