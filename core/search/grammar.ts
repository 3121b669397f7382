import { isBefore, type Day } from '../values/day';
import { daysFromWords, type Days } from './when';
import { tokensOf } from './fold';
import { wordFields, type Asks, type Part, type Query, type WordField } from './query';

/** Longer queries are cut, more parts than this are left away: nobody types them. */
export const LONGEST_QUERY = 1_000;
export const MOST_PARTS = 40;

/** What was typed up to a blank, quotes kept together. */
interface Piece {
  start: number;
  end: number;
  without: boolean;
  /** Before the colon, lower case; null without one. */
  field: string | null;
  value: string;
  quoted: boolean;
}

const MINUS = '-−–';
const OPENING = '"“„';
const CLOSING = '"”“';

/** One piece from `at`, at which there is no blank. A quote without its partner goes to the end. */
function readPiece(text: string, at: number): Piece {
  const start = at;
  const without = MINUS.includes(text[at] ?? '') && /\S/.test(text[at + 1] ?? ' ');
  if (without) at += 1;
  const named = /^([\p{L}]+):/u.exec(text.slice(at));
  const name = named?.[1]?.toLowerCase() ?? '';
  const field = Object.hasOwn(fields, name) ? name : null;
  if (field) at += name.length + 1;
  const quoted = OPENING.includes(text[at] ?? ' ');
  if (quoted) {
    let end = at + 1;
    while (end < text.length && !CLOSING.includes(text[end] ?? '')) end += 1;
    const value = text.slice(at + 1, end);
    return { start, end: Math.min(end + 1, text.length), without, field, value, quoted };
  }
  let end = at;
  while (end < text.length && /\S/.test(text[end] ?? ' ')) end += 1;
  return { start, end, without, field, value: text.slice(at, end), quoted };
}

type Read = (value: string, today: Day) => Asks;

const unclear = (why: string): Asks => ({ kind: 'unclear', why });

const wordsIn = (field: WordField | null, text: string, phrase: boolean, open: boolean): Asks => {
  const tokens = tokensOf(text);
  return tokens.length
    ? { kind: 'words', field, tokens, open, text, phrase }
    : unclear(`there is no word in “${text}”`);
};

const named =
  (make: (name: string) => Asks, what: string): Read =>
  (value) =>
    value.trim() ? make(value.trim()) : unclear(`${what} is missing`);

const NO_DATE = 'no date: today, last week, March, 3 March, 2026-03-03';

const dated =
  (make: (days: Days) => Pick<Days, 'from'> | Pick<Days, 'end'> | Days): Read =>
  (value, today) => {
    const days = daysFromWords(value, today);
    if (!days) return unclear(value ? `“${value}” is ${NO_DATE}` : 'the day is missing');
    return { kind: 'taken', from: null, end: null, ...make(days) };
  };

/** Two dates: a..b, “a and b”. */
const between: Read = (value, today) => {
  const [first, second] = value.split(/\.\.+| and /).map((one) => daysFromWords(one.trim(), today));
  if (!first || !second) return unclear('two days are needed: between:2026-03-01..2026-03-09');
  const [a, b] = isBefore(second.from, first.from) ? [second, first] : [first, second];
  return { kind: 'taken', from: a.from, end: b.end };
};

const size: Read = (value) => {
  const found = /^([<>]?)=?\s*(\d{1,5})\s*[x×*]\s*(\d{1,5})$/i.exec(value);
  if (!found) return unclear('a size is written so: 800x600, >800x600, <200x200');
  const compare = found[1] === '>' ? 'above' : found[1] === '<' ? 'below' : 'is';
  return { kind: 'size', compare, width: Number(found[2]), height: Number(found[3]) };
};

const none = /^(no|none|not|nowhere)$/i;
const any = /^(yes|any|anywhere)$/i;

const kept: Read = named(
  (folder) => ({ kind: 'kept', folder: any.test(folder) ? null : folder }),
  'the folder’s name',
);
const after = dated(({ end }) => ({ from: end }));
const since = dated(({ from }) => ({ from }));

/** The fields by the names they are typed by. */
const fields: Record<string, Read> = {
  tag: named((name) => ({ kind: 'tag', name }), 'the tag’s name'),
  from: named((name) => ({ kind: 'from', name }), 'the source’s name'),
  kept,
  in: kept,
  with: named((mark) => ({ kind: 'with', mark: mark.toLowerCase() }), 'the kind of mark'),
  hidden: () => ({ kind: 'with', mark: 'hidden' }),
  size,
  on: dated((days) => days),
  before: dated(({ from }) => ({ end: from })),
  after,
  since,
  between,
  ...Object.fromEntries(
    wordFields.map((field): [string, Read] => [
      field,
      (value) =>
        value.trim() ? wordsIn(field, value, false, false) : unclear('the words are missing'),
    ]),
  ),
};

/** Fields whose value may go over several words without quotes, as far as it is a date. */
const dates = new Set(['on', 'before', 'after', 'since']);
const MOST_WORDS_OF_A_DATE = 3;

/** A date of several words, as far as they are one: since:3 March. */
function withMoreWords(text: string, piece: Piece, today: Day): Piece {
  if (!piece.field || piece.quoted || !dates.has(piece.field)) return piece;
  let best = piece;
  let end = piece.end;
  for (let more = 0; more < MOST_WORDS_OF_A_DATE; more += 1) {
    const next = /^ +[^\s:]+/.exec(text.slice(end));
    if (!next) break;
    end += next[0].length;
    const value = piece.value + text.slice(piece.end, end);
    if (daysFromWords(value, today)) best = { ...piece, end, value };
  }
  return best;
}

function meaning(piece: Piece, today: Day, open: boolean): { asks: Asks; without: boolean } {
  const { field, value, quoted, without } = piece;
  if (!field) return { asks: wordsIn(null, value, quoted, open && !quoted), without };
  // kept:none and hidden:no say the contrary of what the field asks.
  const contrary = none.test(value) && ['kept', 'in', 'hidden', 'tag'].includes(field);
  if (contrary && field === 'tag') return { asks: { kind: 'tag', name: '' }, without };
  const asks = fields[field]?.(contrary ? 'any' : value, today) ?? unclear('is no field');
  if (asks.kind === 'words')
    return { asks: { ...asks, phrase: quoted, open: open && !quoted }, without };
  return { asks, without: without !== contrary };
}

/**
 * What a person typed into the search field. Never refused: what cannot be understood becomes a
 * part that says why, and narrows nothing.
 * @param today what day it is where the person is
 */
export function readQuery(typed: string, today: Day): Query {
  const text = typed.slice(0, LONGEST_QUERY);
  const parts: Part[] = [];
  let at = 0;
  while (at < text.length && parts.length < MOST_PARTS) {
    if (/\s/.test(text[at] ?? '')) {
      at += 1;
      continue;
    }
    const piece = withMoreWords(text, readPiece(text, at), today);
    const open = piece.end === text.length;
    at = Math.max(piece.end, at + 1);
    // A sign alone is being typed or was left behind.
    if (!piece.field && !piece.quoted && tokensOf(piece.value).length === 0) continue;
    parts.push({ start: piece.start, end: piece.end, ...meaning(piece, today, open) });
  }
  return { parts };
}

/** The text without one of its parts, as its chip's × makes it. */
export function withoutPart(text: string, { start, end }: Part): string {
  return `${text.slice(0, start).trimEnd()} ${text.slice(end).trimStart()}`.trim();
}
