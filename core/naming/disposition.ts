/** Every byte that is no letter, digit or one of the few signs that all of these standards leave. */
const percented = (text: string): string =>
  encodeURIComponent(text).replace(
    /[!'()*]/g,
    (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`,
  );

/** Printable ASCII in quotes, for clients that know nothing else. */
const plain = (name: string): string => name.replace(/[^ -~]|["\\%]/g, '_');

/**
 * A file's name as an answer over HTTP carries it: for old clients in plain letters, for all others
 * whole (RFC 6266, §4.3; RFC 8187).
 */
export const httpDisposition = (how: 'inline' | 'attachment', name: string): string =>
  `${how}; filename="${plain(name)}"; filename*=UTF-8''${percented(name)}`;

/** The name in such a header, whole; null where there is none. */
export function nameInDisposition(header: string): string | null {
  const [, whole] = /filename\*=UTF-8''([^;]+)/i.exec(header) ?? [];
  return whole === undefined ? null : decodeURIComponent(whole);
}
