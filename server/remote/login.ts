import { createHash, randomBytes } from 'node:crypto';
import { RemoteProblem } from './problems';

/** Who asks, and whether the password may go where others on the way can read it. */
export interface Login {
  username: string;
  password: string;
  readable: boolean;
}

interface Challenge {
  scheme: string;
  said: Map<string, string>;
}

/** What an answer asks for (RFC 9110, 11.6.1): schemes with what each says. */
function challenges(header: string): Challenge[] {
  const all: Challenge[] = [];
  const tokens = /([\w-]+)\s*=\s*(?:"((?:[^"\\]|\\.)*)"|([^\s,]+))|([A-Za-z][\w-]*)/g;
  for (const [, name, quoted, plain, scheme] of header.matchAll(tokens)) {
    if (scheme) all.push({ scheme: scheme.toLowerCase(), said: new Map() });
    else if (name) {
      const value = quoted?.replace(/\\(.)/g, '$1') ?? plain ?? '';
      all.at(-1)?.said.set(name.toLowerCase(), value);
    }
  }
  return all;
}

/** The ways of Digest that are known, the stronger one first (RFC 7616, 3.2). */
const ALGORITHMS: readonly [string, string][] = [
  ['SHA-256', 'sha256'],
  ['MD5', 'md5'],
];

interface Digest {
  said: Map<string, string>;
  algorithm: string;
  hash: (text: string) => string;
  used: number;
}

function digestOf(all: readonly Challenge[]): Digest | null {
  for (const [name, hash] of ALGORITHMS) {
    const found = all.find(
      ({ scheme, said }) =>
        scheme === 'digest' && (said.get('algorithm') ?? 'MD5').toUpperCase() === name,
    );
    if (!found) continue;
    const digest = (text: string) => createHash(hash).update(text).digest('hex');
    return { said: found.said, algorithm: name, hash: digest, used: 0 };
  }
  return null;
}

const quoted = (text: string): string => `"${text.replace(/["\\]/g, '\\$&')}"`;

/** RFC 7616, 3.4: the answer proves that the password is known and does not hold it. */
function digestHeader(
  digest: Digest,
  { username, password }: Login,
  { method, uri, own }: { method: string; uri: string; own: string },
): string {
  const { said, hash, algorithm } = digest;
  digest.used += 1;
  const [realm, nonce] = [said.get('realm') ?? '', said.get('nonce') ?? ''];
  const withQop = (said.get('qop') ?? '').split(/\s*,\s*/).includes('auth');
  const count = digest.used.toString(16).padStart(8, '0');
  const secret = hash(`${username}:${realm}:${password}`);
  const asked = hash(`${method}:${uri}`);
  const response = withQop
    ? hash([secret, nonce, count, own, 'auth', asked].join(':'))
    : hash([secret, nonce, asked].join(':'));
  const opaque = said.get('opaque');
  const name = /^[ -~]*$/.test(username)
    ? `username=${quoted(username)}`
    : `username*=UTF-8''${encodeURIComponent(username)}`;
  return [
    `Digest ${name}, realm=${quoted(realm)}, nonce=${quoted(nonce)}, uri=${quoted(uri)}`,
    `algorithm=${algorithm}, response=${quoted(response)}`,
    ...(withQop ? [`qop=auth, nc=${count}, cnonce=${quoted(own)}`] : []),
    ...(opaque === undefined ? [] : [`opaque=${quoted(opaque)}`]),
  ].join(', ');
}

const READABLE =
  'This remote folder takes the password only as it is, and over plain http whoever is on the way can read it. It is not sent. Use an address with https, or allow it for this folder.';

/**
 * How one end tells the other who it is. Nothing is said until it is asked for; then by Digest
 * where that is offered, else by the password itself.
 */
export class Asked {
  private digest: Digest | null = null;
  private basic = false;

  /**
   * @param safe nobody on the way can read what is sent
   * @param once what is never used twice, for Digest
   */
  constructor(
    private readonly login: Login,
    private readonly safe: boolean,
    private readonly once = () => randomBytes(16).toString('hex'),
  ) {}

  header(method: string, uri: string): Record<string, string> {
    if (this.digest) {
      const asked = { method, uri, own: this.once() };
      return { Authorization: digestHeader(this.digest, this.login, asked) };
    }
    if (!this.basic) return {};
    const { username, password } = this.login;
    const both = Buffer.from(`${username}:${password}`).toString('base64');
    return { Authorization: `Basic ${both}` };
  }

  /**
   * Takes note of what an answer of 401 asks for.
   * @returns whether asking again may help
   * @throws RemoteProblem where the password would have to be sent for others to read
   */
  learn(header: string): boolean {
    if (!this.login.username) return false;
    const all = challenges(header);
    const digest = digestOf(all);
    if (digest) {
      // Known before, and not for being too old: it is the password that is wrong.
      const isStale = digest.said.get('stale')?.toLowerCase() === 'true';
      if (this.digest && !isStale) return false;
      this.digest = digest;
      return true;
    }
    if (this.basic || !all.some(({ scheme }) => scheme === 'basic')) return false;
    if (!this.safe && !this.login.readable) throw new RemoteProblem(READABLE, 'password-readable');
    this.basic = true;
    return true;
  }
}
