import { request as httpRequest, type RequestOptions } from 'node:http';
import { errorCode } from '../base/errorCode';
import { RemoteProblem } from './problems';
import { guardedLookup, hostOf } from './reach';
import { secureSocket, speaksTls } from './secure';

/** How long a connection, a silence and a whole request may take, ms. */
export interface Patience {
  silence: number;
  whole: number;
  /** Bytes a millisecond that even a slow line carries; 50 where absent. */
  line?: number;
}

/** So much of a body may lie in the buffers at both ends, bytes: for as long as that takes nothing is heard. */
const MOST_UNDERWAY = 4_000_000;
const SLOW_LINE = 50;

export interface DavAnswer {
  status: number;
  body: Buffer;
  /** How it wants to be told who asks; empty where it does not. */
  challenge: string;
  /** The kind of its body. */
  type: string;
}

export interface Exchange {
  url: URL;
  method: string;
  /** With everything that has to be escaped. */
  path: string;
  headers: Record<string, string>;
  body?: Uint8Array | undefined;
  /** Of what the other end answers, no more than this is read, bytes. */
  most: number;
  /** Of the one certificate that is trusted besides those this computer knows. */
  fingerprint: string | null;
  patience: Patience;
  signal: AbortSignal;
}

const HTTPS = 443;
const HTTP = 80;

/** One request and its answer. Follows no redirect; waits for nobody for ever. */
export async function exchange(asked: Exchange): Promise<DavAnswer> {
  const { url, method, path, headers, body, patience } = asked;
  const secure = url.protocol === 'https:';
  const host = hostOf(url);
  const port = Number(url.port) || (secure ? HTTPS : HTTP);
  const signal = AbortSignal.any([asked.signal, AbortSignal.timeout(patience.whole)]);
  const { fingerprint } = asked;
  const socket = secure
    ? await secureSocket({ host, port, fingerprint }, { signal, silence: patience.silence })
    : null;
  const options: RequestOptions = {
    ...{ method, path, host, port, signal, lookup: guardedLookup },
    headers: { ...headers, Host: url.host, 'Content-Length': String(body?.length ?? 0) },
    // A connection of its own, which nobody else gets afterwards.
    ...(socket ? { createConnection: () => socket } : { agent: false }),
  };
  try {
    const answer = await answerTo(options, asked);
    // Plain HTTP to a port of TLS is answered so, or not at all.
    if (secure || answer.status !== 400 || !(await speaksTls(host, port, signal))) return answer;
  } catch (error) {
    if (secure || error instanceof RemoteProblem || !isCutOff(error)) throw error;
    if (!(await speaksTls(host, port, signal))) throw error;
  }
  throw new RemoteProblem('Whoever answers there wants TLS; should the address begin with https?');
}

const isCutOff = (error: unknown): boolean => /^(ECONNRESET|EPIPE|HPE_)/.test(errorCode(error));

function answerTo(options: RequestOptions, { body, most, patience }: Exchange): Promise<DavAnswer> {
  return new Promise((resolve, reject) => {
    const request = httpRequest(options, (response) => {
      const parts: Buffer[] = [];
      let length = 0;
      const done = () =>
        resolve({
          status: response.statusCode ?? 0,
          body: Buffer.concat(parts),
          challenge: response.headers['www-authenticate'] ?? '',
          type: response.headers['content-type'] ?? '',
        });
      response.on('data', (part: Buffer) => {
        parts.push(part);
        length += part.length;
        if (length <= most) return;
        done();
        request.destroy();
      });
      response.on('end', done);
      response.on('error', reject);
    });
    // Covers the connection, too: until it stands nothing is heard either.
    request.setTimeout(patience.silence, () => request.destroy(new Error('silence')));
    // Once it stands, what the systems at both ends hold of a body goes its way unheard.
    const underway = Math.min(body?.length ?? 0, MOST_UNDERWAY) / (patience.line ?? SLOW_LINE);
    request.once('socket', (socket) => {
      const begun = () => request.setTimeout(patience.silence + underway);
      if (socket.connecting) socket.once('connect', begun);
      else begun();
    });
    request.on('error', reject);
    request.end(body);
  });
}
