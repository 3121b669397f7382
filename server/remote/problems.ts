import { errorCode } from '../base/errorCode';

/** What stands in the way at the other end, in plain words. */
export class RemoteProblem extends Error {
  /**
   * @param choice what a person can decide about it, if anything
   * @param fingerprint of the certificate that was shown, SHA-256
   */
  constructor(
    message: string,
    readonly choice: 'forbidden-address' | 'password-readable' | 'certificate' | null = null,
    readonly fingerprint: string | null = null,
  ) {
    super(message);
  }
}

const words: Record<number, string> = {
  401: 'The remote folder did not accept the name or the password.',
  403: 'The remote folder does not let this name write there.',
  404: 'The remote folder is not there.',
  405: 'The remote folder does not take files in this way; is it a WebDAV folder?',
  409: 'A folder on the way is missing at the other end.',
  413: 'The remote folder does not take files of this size.',
  507: 'The remote folder is full.',
  511: 'The network wants to be logged in to first; its page answers in place of the remote folder.',
};

/** What an answer that is no success means. */
export function problemOf(status: number): RemoteProblem {
  if (status >= 300 && status < 400) {
    return new RemoteProblem(
      `The remote folder points to another address (${status}). Nothing is sent there; set that address up yourself if it is right.`,
    );
  }
  return new RemoteProblem(words[status] ?? `The remote folder answered ${status}.`);
}

/** Somebody answers who is no remote folder: a page to log in to a network, or any other. */
export const somebodyElse = (): RemoteProblem =>
  new RemoteProblem(
    'A web page answers in place of the remote folder. Does the network want to be logged in to, or is the address another one?',
  );

const byCode: Record<string, string> = {
  ECONNREFUSED: 'The other machine does not answer. Nothing listens there; is the port right?',
  ENOTFOUND: 'There is no machine of this name.',
  EAI_AGAIN: 'The name of the machine cannot be looked up; is there a network?',
  ERR_SSL_WRONG_VERSION_NUMBER:
    'Whoever answers there speaks no TLS; should the address begin with http?',
  ERR_SSL_PACKET_LENGTH_TOO_LONG:
    'Whoever answers there speaks no TLS; should the address begin with http?',
  HPE_INVALID_CONSTANT:
    'Whoever answers there speaks no HTTP; should the address begin with https?',
};

/** What a failed exchange means. */
export function inWords(error: unknown): RemoteProblem {
  if (error instanceof RemoteProblem) return error;
  const code = errorCode(error);
  return new RemoteProblem(byCode[code] ?? 'The other machine does not answer.');
}
