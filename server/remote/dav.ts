import { exchange, type DavAnswer, type Patience } from './exchange';
import { Asked, type Login } from './login';
import { hostOf, isLoopback, refuseForbidden } from './reach';

export const PATIENCE: Patience = { silence: 15_000, whole: 300_000 };

/** Of what the other end answers, no more than this is read, bytes. */
const MOST_ANSWER = 4_000_000;

/** Once to hear what is wanted, once more where that was too old. */
const MOST_TRIES = 3;

/** A folder on another machine, and who asks there. */
export interface To extends Login {
  url: string;
  /** SHA-256 of the one certificate that is trusted besides those this computer knows. */
  fingerprint: string | null;
}

interface Ask {
  method: string;
  path: string;
  headers?: Record<string, string>;
  body?: Uint8Array;
  /** Bytes of the answer that are wanted; a longer one is cut. */
  most?: number;
}

/** A folder on another machine over WebDAV (RFC 4918). */
export interface Dav {
  ask: (ask: Ask) => Promise<DavAnswer>;
  /** The address of a path below the folder, as MOVE wants it. */
  address: (path: string) => string;
}

/** @throws RemoteProblem when the address is one that is never sent to */
export function davAt(to: To, signal: AbortSignal, patience: Patience = PATIENCE): Dav {
  const url = new URL(to.url);
  const host = hostOf(url);
  refuseForbidden(host);
  const asked = new Asked(to, url.protocol === 'https:' || isLoopback(host));
  const folder = url.pathname.replace(/\/+$/, '');
  const wayTo = (path: string) => folder + path.split('/').map(encodeURIComponent).join('/');
  const { fingerprint } = to;
  return {
    address: (path) => `${url.origin}${wayTo(path)}`,
    ask: async ({ method, path, headers, body, most = MOST_ANSWER }) => {
      const way = wayTo(path);
      for (let attempt = 1; ; attempt += 1) {
        const all = { ...asked.header(method, way), ...headers };
        const how = { most, fingerprint, patience, signal };
        const answer = await exchange({ url, method, path: way, headers: all, body, ...how });
        if (answer.status !== 401 || attempt === MOST_TRIES) return answer;
        if (!asked.learn(answer.challenge)) return answer;
      }
    },
  };
}
