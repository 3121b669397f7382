import type { Dav } from './dav';
import { problemOf, somebodyElse } from './problems';

/** Asks for nothing but the names (RFC 4918, 9.1). */
const ASKED = Buffer.from(
  '<?xml version="1.0" encoding="utf-8"?>\n<propfind xmlns="DAV:"><prop><resourcetype/></prop></propfind>',
);
const HREF = /<(?:[\w-]+:)?href(?:\s[^>]*)?>([^<]*)<\//gi;
const entities: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

function nameOf(href: string): string | null {
  const plain = href
    .trim()
    .replace(
      /&(?:#(\d+)|#x([\da-f]+)|(\w+));/gi,
      (whole, decimal?: string, hex?: string, word?: string) =>
        word
          ? (entities[word] ?? whole)
          : String.fromCodePoint(decimal ? Number(decimal) : parseInt(hex ?? '0', 16)),
    );
  try {
    return decodeURIComponent(plain.replace(/\/+$/, '').split('/').at(-1) ?? '');
  } catch {
    return null;
  }
}

/**
 * The names that are taken in a folder, asked for once; none where it does not tell them: then each
 * is found out by trying it.
 * @throws RemoteProblem when somebody else answers, or nobody may ask
 */
export async function namesIn(dav: Dav, parts: readonly string[]): Promise<ReadonlySet<string>> {
  const path = `/${parts.map((part) => `${part}/`).join('')}`;
  const headers = { Depth: '1', 'Content-Type': 'application/xml; charset=utf-8' };
  const { status, body, type } = await dav.ask({ method: 'PROPFIND', path, headers, body: ASKED });
  if (status === 207) {
    const hrefs = [...body.toString('utf8').matchAll(HREF)].map(([, href = '']) => nameOf(href));
    return new Set(hrefs.filter((name) => name !== null));
  }
  if (status === 200 && /text\/html/i.test(type)) throw somebodyElse();
  if ([301, 302, 303, 307, 308, 401, 511].includes(status)) throw problemOf(status);
  return new Set();
}
