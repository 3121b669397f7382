import { lookup } from 'node:dns';
import { request as httpRequest, type RequestOptions } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { BlockList, isIP, type LookupFunction } from 'node:net';

/** What stands in the way at the other end, in plain words. */
export class RemoteProblem extends Error {}

/** Addresses that no remote folder has: of the link alone, of metadata services, of nobody. */
const forbidden = new BlockList();
forbidden.addSubnet('169.254.0.0', 16, 'ipv4');
forbidden.addAddress('100.100.100.200', 'ipv4');
forbidden.addSubnet('0.0.0.0', 8, 'ipv4');
forbidden.addSubnet('224.0.0.0', 3, 'ipv4');
forbidden.addSubnet('fe80::', 10, 'ipv6');
forbidden.addAddress('fd00:ec2::254', 'ipv6');
forbidden.addAddress('::', 'ipv6');
forbidden.addSubnet('ff00::', 8, 'ipv6');

const isForbidden = (address: string): boolean =>
  forbidden.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');

export const FORBIDDEN = 'This address is one that Rezzik does not send to.';

/** Looks a name up and refuses what it leads to, so that the very address used was checked. */
const guardedLookup: LookupFunction = (host, options, done) => {
  lookup(host, { ...options, all: true }, (error, found) => {
    if (error) return done(error, '', 4);
    const allowed = found.filter(({ address }) => !isForbidden(address));
    if (allowed.length === 0) return done(new RemoteProblem(FORBIDDEN), '', 4);
    if (options.all) return done(null, allowed);
    const [{ address, family } = { address: '', family: 4 }] = allowed;
    done(null, address, family);
  });
};

/** How long a connection, a silence and a whole request may take, ms. */
export interface Patience {
  silence: number;
  whole: number;
}
const PATIENCE: Patience = { silence: 15_000, whole: 300_000 };

/** Of what the other end answers, no more than this is read, bytes. */
const MOST_ANSWER = 1_000_000;

export interface DavAnswer {
  status: number;
  body: Buffer;
}

interface Ask {
  method: string;
  path: string;
  headers?: Record<string, string>;
  body?: Uint8Array;
  /** Bytes of the answer that are wanted; a longer one is cut. */
  most?: number;
}

/** A folder on another machine over WebDAV (RFC 4918). Follows no redirect; waits for nobody for ever. */
export interface Dav {
  ask: (ask: Ask) => Promise<DavAnswer>;
  /** The address of a path below the folder, as MOVE wants it. */
  address: (path: string) => string;
}

/** @throws RemoteProblem when the address is one that is never sent to */
export function davAt(
  { url, username, password }: { url: string; username: string; password: string },
  signal: AbortSignal,
  patience: Patience = PATIENCE,
): Dav {
  const base = new URL(url);
  const host = base.hostname.replace(/^\[|\]$/g, '');
  if (isIP(host) && isForbidden(host)) throw new RemoteProblem(FORBIDDEN);
  const folder = base.pathname.replace(/\/+$/, '');
  const wayTo = (path: string) => folder + path.split('/').map(encodeURIComponent).join('/');
  const auth = username
    ? { Authorization: `Basic ${Buffer.from(`${username}:${password}`).toString('base64')}` }
    : {};
  return {
    address: (path) => `${base.origin}${wayTo(path)}`,
    ask: ({ method, path, headers, body, most = MOST_ANSWER }) =>
      exchange(
        {
          method,
          protocol: base.protocol,
          host,
          port: base.port || undefined,
          path: wayTo(path),
          headers: { ...auth, ...headers, 'Content-Length': String(body?.length ?? 0) },
          lookup: guardedLookup,
          signal: AbortSignal.any([signal, AbortSignal.timeout(patience.whole)]),
          agent: false,
        },
        body,
        patience.silence,
        most,
      ),
  };
}

function exchange(
  options: RequestOptions,
  body: Uint8Array | undefined,
  silence: number,
  most: number,
): Promise<DavAnswer> {
  return new Promise((resolve, reject) => {
    const send = options.protocol === 'https:' ? httpsRequest : httpRequest;
    const request = send(options, (response) => {
      const parts: Buffer[] = [];
      let length = 0;
      const done = () => resolve({ status: response.statusCode ?? 0, body: Buffer.concat(parts) });
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
    request.setTimeout(silence, () => request.destroy(new Error('silence')));
    request.on('error', reject);
    request.end(body);
  });
}

const words: Record<number, string> = {
  401: 'The remote folder did not accept the name or the password.',
  403: 'The remote folder does not let this name write there.',
  404: 'The remote folder is not there.',
  405: 'The remote folder does not take files in this way; is it a WebDAV folder?',
  409: 'A folder on the way is missing at the other end.',
  413: 'The remote folder does not take files of this size.',
  507: 'The remote folder is full.',
};

/** What an answer that is no success means, in plain words. */
export function problemOf(status: number): RemoteProblem {
  if (status >= 300 && status < 400) {
    return new RemoteProblem(
      `The remote folder points to another address (${status}). Nothing is sent there; set that address up yourself if it is right.`,
    );
  }
  return new RemoteProblem(words[status] ?? `The remote folder answered ${status}.`);
}

/** What a failed exchange means, in plain words. */
export function inWords(error: unknown): RemoteProblem {
  if (error instanceof RemoteProblem) return error;
  return new RemoteProblem('The other machine does not answer.');
}
