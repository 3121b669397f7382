const MARKER = 0xff;
/** Frame headers; the gaps are tables and the like (ITU-T T.81, table B.1). */
const FRAMES = new Set([0, 1, 2, 3, 5, 6, 7, 9, 10, 11, 13, 14, 15].map((n) => 0xc0 + n));
const LOSSLESS = new Set([0xc3, 0xc7, 0xcb, 0xcf]);
const LAYERED = new Set([0xc5, 0xc6, 0xcd, 0xce]);
const START = 0xda;
/** No more are looked at than writers put before the picture: a file of nothing but markers has millions. */
const MOST_MARKERS = 10_000;

/**
 * The kinds of JPEG that no usual decoder reads, by its frame header.
 * @returns “a JPEG of 12 bits”; null for those that are read, and for what is no JPEG
 * Source: ITU-T T.81, B.1.1.3 and B.2.2
 */
export function unreadJpeg(bytes: Uint8Array): string | null {
  let at = 2;
  for (let n = 0; n < MOST_MARKERS && at + 4 <= bytes.length && bytes[at] === MARKER; n += 1) {
    const kind = bytes[at + 1] ?? 0;
    if (kind === MARKER) {
      at += 1;
      continue;
    }
    if (kind === START) return null;
    if (FRAMES.has(kind)) {
      const bits = bytes[at + 4] ?? 8;
      if (LOSSLESS.has(kind)) return 'a JPEG without loss';
      if (LAYERED.has(kind)) return 'a JPEG in layers';
      return bits > 8 ? `a JPEG of ${bits} bits` : null;
    }
    at += 2 + (((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0));
  }
  return null;
}
