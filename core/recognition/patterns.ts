import { passesMod10, passesMod97 } from './checks';
import type { PrivateKind } from './kinds';

/** Characters of a line that look like a private thing. */
export interface Span {
  kind: PrivateKind;
  start: number;
  end: number;
}

/** Digits, and the letters that recognition takes them for. */
const DIGIT = '[0-9OoQIl|SB]';
const asDigit: Record<string, string> = {
  O: '0',
  o: '0',
  Q: '0',
  I: '1',
  l: '1',
  '|': '1',
  S: '5',
  B: '8',
};
const digitsOf = (text: string): string =>
  [...text]
    .map((c) => asDigit[c] ?? c)
    .join('')
    .replace(/\D/g, '');
const realDigits = (text: string): number => text.replace(/\D/g, '').length;

function* matches(pattern: RegExp, text: string): Generator<{ start: number; text: string }> {
  for (const match of text.matchAll(pattern)) yield { start: match.index, text: match[0] };
}

const spans = (
  kind: PrivateKind,
  pattern: RegExp,
  text: string,
  right: (found: string, start: number) => boolean = () => true,
): Span[] =>
  [...matches(pattern, text)]
    .filter((m) => right(m.text, m.start))
    .map((m) => ({ kind, start: m.start, end: m.start + m.text.length }));

/** The @ is often read as one of these; around it and around dots a space may have crept in. */
const EMAIL = /[\w.+%-]{2,}\s?(?:@|©|®|\(@)\s?[\w-]{2,}(?:\s?[.,]\s?[a-z][\w-]*){1,4}/giu;
const EMAIL_PLAIN = /[\w.+%-]+@[\w-]+(?:\.[\w-]+)+/giu;

const emails = (text: string): Span[] => [
  ...spans('email', EMAIL_PLAIN, text),
  ...spans('email', EMAIL, text),
];

const CARD = new RegExp(`(?<![\\w.])${DIGIT}(?:[ -]?${DIGIT}){12,18}(?![\\w])`, 'gu');
/** Four groups of four read wrongly in one digit still look like a card. */
const FOURS = /^\S{4}([ -])\S{4}\1\S{4}\1\S{4}$/;

const cards = (text: string): Span[] =>
  spans('card', CARD, text, (found) => {
    const digits = digitsOf(found);
    if (realDigits(found) < digits.length * 0.7) return false;
    if (/^(.)\1+$/.test(digits)) return false;
    return /^[2-6]/.test(digits) && (passesMod10(digits) || FOURS.test(found));
  });

/** Lengths by country (ISO 13616 registry), for numbers that were read wrongly in one place. */
const ibanLengths: Record<string, number> = {
  AT: 20,
  BE: 16,
  CH: 21,
  CZ: 24,
  DE: 22,
  DK: 18,
  ES: 24,
  FI: 18,
  FR: 27,
  GB: 22,
  GR: 27,
  HU: 28,
  IE: 22,
  IT: 27,
  LI: 21,
  LU: 20,
  NL: 18,
  NO: 15,
  PL: 28,
  PT: 25,
  SE: 24,
};
const IBAN =
  /(?<![A-Za-z0-9])[A-Z]{2}[0-9OQIlSB]{2,3}(?:[ -]?[A-Z0-9|lo]{1,4}){3,9}(?![A-Za-z0-9])/gu;

const ibans = (text: string): Span[] =>
  [...matches(IBAN, text)].flatMap(({ start, text: found }) => {
    // What follows on the line may have been taken along: the longest beginning that fits counts.
    for (let end = found.length; end >= 15; end -= 1) {
      const part = found.slice(0, end);
      if (/[ -]$/.test(part)) continue;
      if (isIban(part)) return [{ kind: 'iban' as const, start, end: start + end }];
    }
    return [];
  });

/** What was written, with check digits that were read as letters, or a nought read twice, put right. */
function readings(plain: string): string[] {
  const [head, check = '', rest = ''] = [plain.slice(0, 2), plain.slice(2, 4), plain.slice(4)];
  const account = rest.replace(/o/g, '0').replace(/[l|]/g, '1');
  const all = [head + digitsOf(check) + account];
  if (/^[OQ]/.test(check))
    all.push(head + digitsOf(check.slice(1) + rest.slice(0, 1)) + account.slice(1));
  return all;
}

function isIban(written: string): boolean {
  const plain = written.replace(/[ -]/g, '');
  const all = readings(plain);
  if (all.some(passesMod97)) return true;
  const grouped = /^\S{4,5}( \S{4})+( \S{1,3})?$/.test(written);
  const fits = all.some((reading) => ibanLengths[reading.slice(0, 2)] === reading.length);
  return grouped && fits && realDigits(plain) >= plain.length * 0.5;
}

const IPV4 = /(?<![\w.])\d{1,3}(?:\s?[.,]\s?\d{1,3}){3}(?![\w.,]*\d)/gu;
/** The small dots are easily overlooked: three numbers of which one is two. */
const IPV4_RUN_ON = /(?<![\w.])\d{1,6}(?:[.,]\d{1,6}){2}(?![\w.,]*\d)/gu;
/** Hexadecimal digits, and the signs that recognition takes them for. */
const HEX = '[0-9a-fA-FOlIghS€£@]';
const IPV6 = new RegExp(`(?<![\\w:])(?:${HEX}{1,7}:(?: ?:)? ?){2,7}${HEX}{0,5}(?![\\w:])`, 'gu');

/** True when one long number is two that ran together, and the whole is no date. */
function ranTogether(found: string): boolean {
  const parts = found.split(/[.,]/);
  const long = parts.filter((part) => part.length > 3);
  const [two = ''] = long;
  const [first = '', , last = ''] = parts;
  // Two short numbers that ran together are still a short one.
  if (long.length === 0)
    return (
      /^[12]\d\d$/.test(first) && last.length > 1 && parts.every((part) => Number(part) <= 255)
    );
  if (long.length !== 1 || parts.some((part) => part.length <= 3 && Number(part) > 255))
    return false;
  if (/^(19|20)\d\d$/.test(two) && (first === two || last === two)) return false;
  return [1, 2, 3].some((at) => {
    const [a, b] = [two.slice(0, at), two.slice(at)];
    return b !== '' && b.length <= 3 && Number(a) <= 255 && Number(b) <= 255 && !/^0\d/.test(b);
  });
}

const ips = (text: string): Span[] => [
  ...spans('ip', IPV4, text, (found) =>
    found.split(/[.,]/).every((part) => Number(part.trim()) <= 255),
  ),
  ...spans('ip', IPV4_RUN_ON, text, ranTogether),
  ...spans('ip', IPV6, text, (found) => {
    const groups = found.split(':').filter((part) => part.trim() !== '');
    // Times of day have at most three groups and no letters.
    const real = found.replace(/[^0-9a-f]/gi, '').length >= found.replace(/[: ]/g, '').length * 0.6;
    return real && (groups.length >= 4 || (found.includes('::') && groups.length >= 2));
  }),
];

const PHONE = /(?<![\w.,:/-])(?:\+|\(?0|\(\d{2,5}\)|\d{3}[ .-])[\d ()./-]{5,18}\d(?![\w:,-]*\d)/gu;

const phones = (text: string): Span[] =>
  spans('phone', PHONE, text, (found) => {
    const digits = realDigits(found);
    if (digits < 7 || digits > 15) return false;
    if (/\d{4}[-./]\d{2}[-./]\d{2}/.test(found) || /^\d{1,2}[./]\d{1,2}[./]/.test(found))
      return false;
    const international = found.startsWith('+') && digits >= 8;
    const inland = /^\(?0/.test(found) && digits >= 9 && /^\(?0\d/.test(found);
    const area = /^\(\d{2,5}\)/.test(found) && digits >= 8;
    const american = /^\d{3}[ .-]\d{3}[ .-]\d{4}$/.test(found);
    return international || inland || area || american;
  });

/** What keys are written in; no word of a language is as long and as mixed. */
const KEY = /(?<![\w/.])[A-Za-z0-9][A-Za-z0-9_+/=~|\]-]{18,}(?![\w])/gu;
const LONGEST_WORD = 14;

const keys = (text: string): Span[] =>
  spans('key', KEY, text, (found) => {
    const digits = realDigits(found);
    const capitals = found.replace(/[^A-Z]/g, '').length;
    const small = found.replace(/[^a-z]/g, '').length;
    if (digits < 2 && (capitals < 4 || small < 4)) return false;
    if (digits === 0 && /^[A-Za-z]?[a-z]+([-_/][a-z]+)*$/.test(found)) return false;
    // Words of a language, joined by signs, are no key.
    const pieces = found.split(/[-_/+=~]/);
    return pieces.some((piece) => piece.length > LONGEST_WORD) || digits >= found.length * 0.25;
  });

/** What looks more like another thing is that: an account number is no phone number. */
const precedence: readonly PrivateKind[] = ['iban', 'email', 'card', 'ip', 'key', 'phone'];

const overlap = (a: Span, b: Span): boolean => a.start < b.end && b.start < a.end;

/** Of findings that overlap, the one that comes first in the order of precedence, then the longer. */
export function withoutOverlaps(all: readonly Span[]): Span[] {
  const rank = (span: Span) => precedence.indexOf(span.kind);
  const length = (span: Span) => span.end - span.start;
  const kept: Span[] = [];
  for (const span of [...all].sort((a, b) => rank(a) - rank(b) || length(b) - length(a))) {
    if (!kept.some((other) => overlap(other, span))) kept.push(span);
  }
  return kept.sort((a, b) => a.start - b.start);
}

/** Everything in a line of text that looks private, from left to right; nothing twice. */
export const privateSpans = (text: string): Span[] =>
  withoutOverlaps([
    ...ibans(text),
    ...emails(text),
    ...cards(text),
    ...ips(text),
    ...keys(text),
    ...phones(text),
  ]);

/** Only keys: for a text in which the pieces of a line stand closer together. */
export const keySpans = (text: string): Span[] => withoutOverlaps(keys(text));
