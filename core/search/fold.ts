/**
 * How text is made comparable for searching: case, accents and the widths of letters do not count,
 * and everything that is neither letter, digit nor pictograph only parts one token from the next.
 * So “SX-48-7713-KA” is found by its parts, and however its signs were recognised.
 */

/** Accents on Latin, Greek and Cyrillic letters; other scripts keep their marks, which tell words apart. */
const ACCENTS = /[\u0300-\u036f]/g;

/** NFKC, lower case, without accents. A text that is plain already is answered as it is. */
export function fold(text: string): string {
  const lower = text.toLowerCase();
  if (/^[\x00-\x7f]*$/.test(lower)) return lower;
  return lower
    .normalize('NFKC')
    .toLowerCase()
    .normalize('NFD')
    .replace(ACCENTS, '')
    .normalize('NFC')
    .replaceAll('ß', 'ss');
}

const PLAIN = /^[A-Za-z0-9]+$/;
/** Scripts that write words without blanks between: each sign is a token, words are sequences. */
const UNPARTED = '\\p{Script=Han}\\p{Script=Hiragana}\\p{Script=Katakana}';
const TOKENS = new RegExp(
  `[${UNPARTED}]|(?:(?![${UNPARTED}])[\\p{L}\\p{N}\\p{M}])+|\\p{Extended_Pictographic}`,
  'gu',
);

/** Longer runs of letters are cut: no index holds them, and nobody types them. */
export const LONGEST_TOKEN = 100;

/** The tokens of a text, in order. */
export function tokensOf(text: string): string[] {
  // Most words of most screens.
  if (PLAIN.test(text)) return [text.toLowerCase().slice(0, LONGEST_TOKEN)];
  return (fold(text).match(TOKENS) ?? []).map((token) => token.slice(0, LONGEST_TOKEN));
}

/** A text as its tokens with a blank around each, in which a phrase is found as a part. */
export const sequenceOf = (tokens: readonly string[]): string =>
  tokens.length ? ` ${tokens.join(' ')} ` : '';

/** What a recogniser of text takes for one another. */
const CONFUSED: readonly (readonly [string, string])[] = [
  ['0', 'o'],
  ['1', 'l'],
  ['1', 'i'],
  ['l', 'i'],
  ['rn', 'm'],
];

/** A token with more places to slip than this has only its first ones tried. */
const MOST_SLIPS = 24;

/** A token and what it may have been read as, with one slip of recognition; the token first. */
export function withSlips(token: string): string[] {
  const all = new Set([token]);
  for (let at = 0; at < token.length; at += 1) {
    for (const [a, b] of CONFUSED) {
      for (const [from, to] of [
        [a, b],
        [b, a],
      ] as const) {
        if (all.size > MOST_SLIPS) return [...all];
        if (token.startsWith(from, at))
          all.add(token.slice(0, at) + to + token.slice(at + from.length));
      }
    }
  }
  return [...all];
}
