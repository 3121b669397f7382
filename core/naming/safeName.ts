/** Longest name of a file in bytes of UTF-8 (POSIX NAME_MAX on the usual file systems). */
export const MOST_NAME_BYTES = 255;

/** Room left for a collision number and an extension. */
const RESERVED_BYTES = 20;

/** Device names that Windows keeps, with any extension (Microsoft, Naming Files). */
const DEVICE = /^(con|prn|aux|nul|com[0-9¹²³]|lpt[0-9¹²³])$/i;

/**
 * Control characters, the characters Windows refuses, and the invisible ones that turn the
 * direction of what follows, which can make one name look like another.
 */

const IMPOSSIBLE =
  /[\u0000-\u001f\u007f-\u009f<>:"/\\|?*\u200e\u200f\u202a-\u202e\u2066-\u2069\ufeff]/g;

const LONE_SURROGATE = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

/** Bytes of a well-formed string in UTF-8. */
export function utf8Length(value: string): number {
  let bytes = 0;
  for (const character of value) {
    const code = character.codePointAt(0) ?? 0;
    bytes += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
  }
  return bytes;
}

/** The longest beginning of whole characters that takes no more than `most` bytes of UTF-8. */
export function cutToBytes(value: string, most: number): string {
  let kept = '';
  let bytes = 0;
  for (const character of value) {
    bytes += utf8Length(character);
    if (bytes > most) break;
    kept += character;
  }
  return kept;
}

/**
 * A name, without extension, that every common file system takes: never empty, never a device,
 * no separators, no leading or trailing dots and spaces, short enough for a number and an
 * extension behind it.
 */
export function safeName(wanted: string, fallback = 'shot'): string {
  const plain = wanted
    .normalize('NFC')
    .replace(LONE_SURROGATE, '')
    .replace(IMPOSSIBLE, '-')
    .replace(/\s+/g, ' ')
    .replace(/-{2,}/g, '-')
    .replace(/^[\s.-]+|[\s.-]+$/g, '');
  const short = cutToBytes(plain, MOST_NAME_BYTES - RESERVED_BYTES).replace(/[\s.-]+$/g, '');
  if (short === '') return fallback;
  const stem = short.split('.')[0] ?? short;
  return DEVICE.test(stem.trim()) ? `_${short}` : short;
}

/** The name for the n-th try: the first as it is, then name-2, name-3 … */
export const numbered = (name: string, attempt: number): string =>
  attempt <= 1 ? name : `${name}-${attempt}`;
