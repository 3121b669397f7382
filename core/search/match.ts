import { union, type Rect } from '../geometry/rect';
import type { Word } from '../recognition/words';
import { tokensOf, withSlips } from './fold';
import type { Asks, Query } from './query';

/** Where words of a shot stand, in the order in which they are named as reasons. */
export const places = ['title', 'tag', 'window', 'program', 'description', 'picture'] as const;
export type PlaceName = (typeof places)[number];

export type Texts = Partial<Record<Exclude<PlaceName, 'picture'>, string>>;

/** Words on a later picture of a clip, seconds from its start. */
export interface LaterWords {
  at: number;
  /** Lines, parted by line feeds. */
  lines: string;
}

/** Why a shot was found: where the words stand, and which of its recognised words they are. */
export interface Reason {
  places: PlaceName[];
  hits: Rect[];
  /** Of a clip, where not all of the words stand on its first picture: when another is seen, seconds. */
  moment?: number;
}

type WordsAsked = Extract<Asks, { kind: 'words' }>;

const wordsOf = (query: Query): WordsAsked[] =>
  query.parts.flatMap(({ asks, without }) => (asks.kind === 'words' && !without ? [asks] : []));

/** The token that is looked for at a place of a phrase, with the slips it may have been read with. */
interface Wanted {
  exactly: ReadonlySet<string>;
  /** May go on. */
  open: boolean;
  token: string;
}

const wantedOf = ({ tokens, open }: WordsAsked): Wanted[] =>
  tokens.map((token, i) => ({
    token,
    exactly: new Set(withSlips(token)),
    open: open && i === tokens.length - 1,
  }));

type Fits = (wanted: Wanted, found: string) => boolean;

const fits: Fits = ({ exactly, open, token }, found) =>
  exactly.has(found) || (open && found.startsWith(token));

/** Where nothing fits as it is: anywhere within a word. */
const within: Fits = ({ token }, found) => found.includes(token);

/** Beginnings of the places at which all wanted tokens follow each other. */
function startsOf(wanted: readonly Wanted[], tokens: readonly string[], fit: Fits): number[] {
  const starts: number[] = [];
  const [first, ...rest] = wanted;
  if (!first) return starts;
  for (let at = 0; at + wanted.length <= tokens.length; at += 1) {
    if (!fit(first, tokens[at] ?? '')) continue;
    if (rest.every((one, i) => fit(one, tokens[at + 1 + i] ?? ''))) starts.push(at);
  }
  return starts;
}

/** The tokens of recognised words, each with the box of its word. A page of results has thousands. */
function spread(words: readonly Word[]): { tokens: string[]; boxes: Rect[] } {
  const tokens: string[] = [];
  const boxes: Rect[] = [];
  for (const { text, box } of words) {
    for (const token of tokensOf(text)) {
      tokens.push(token);
      boxes.push(box);
    }
  }
  return { tokens, boxes };
}

/** More boxes than these are not outlined on one shot. */
const MOST_HITS = 40;

const keyOf = ({ x, y, width, height }: Rect): string => `${x} ${y} ${width} ${height}`;

/** Words of a phrase that stand beside each other as one box; one box for each line. */
function joined(words: readonly Rect[]): Rect[] {
  const boxes: Rect[] = [];
  for (const box of words) {
    const before = boxes.at(-1);
    const middle = box.y + box.height / 2;
    const beside =
      before && middle > before.y && middle < before.y + before.height && box.x >= before.x;
    if (beside) boxes[boxes.length - 1] = union([before, box]);
    else boxes.push(box);
  }
  return boxes;
}

/**
 * Why a shot fits the words of a query.
 * @param texts what is known of it in words
 * @param words its recognised words, in reading order
 * @param inside words were found within others
 * @param later of a clip, words of its later pictures
 */
export function reasonOf(
  query: Query,
  texts: Texts,
  words: readonly Word[],
  inside = false,
  later: readonly LaterWords[] = [],
): Reason {
  const fit = inside ? within : fits;
  const asked = wordsOf(query);
  if (asked.length === 0) return { places: [], hits: [] };
  const found = new Set<PlaceName>();
  const hits = new Map<string, Rect>();
  const { tokens, boxes } = spread(words);
  const onLater = later.map(({ at, lines }) => ({ at, tokens: tokensOf(lines) }));
  let moment: number | undefined;
  for (const one of asked) {
    const wanted = wantedOf(one);
    for (const place of places) {
      if (place === 'picture') continue;
      if (one.field !== null && one.field !== place) continue;
      const text = texts[place];
      if (text && startsOf(wanted, tokensOf(text), fit).length > 0) found.add(place);
    }
    if (one.field !== null) continue;
    const starts = startsOf(wanted, tokens, fit);
    if (starts.length === 0) {
      const at = onLater.find((one) => startsOf(wanted, one.tokens, fit).length > 0)?.at;
      if (at !== undefined) found.add('picture');
      moment ??= at;
    }
    for (const start of starts) {
      found.add('picture');
      for (const box of joined(boxes.slice(start, start + wanted.length)))
        hits.set(keyOf(box), box);
    }
  }
  return {
    places: places.filter((place) => found.has(place)),
    hits: [...hits.values()].slice(0, MOST_HITS),
    ...(moment !== undefined && { moment }),
  };
}
