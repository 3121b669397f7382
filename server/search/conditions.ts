import type postgres from 'postgres';
import { sourceLabels, sourceNames, type SourceName } from '@/core/contracts/provenance';
import { fold, tokensOf, withSlips } from '@/core/search/fold';
import { inField, kindToken, sourceToken } from '@/core/search/indexed';
import { asking, type Asks, type Part, type Query } from '@/core/search/query';
import type { Day } from '@/core/values/day';
import { sql } from '../db/sql';
import type { TagIds } from '../indexing/tagIds';

type Fragment = postgres.PendingQuery<postgres.Row[]>;
type Words = Extract<Asks, { kind: 'words' }>;

/** A token as a tsquery has it. Tokens are letters and digits; what they are marked with is not a sign of its. */
const lexeme = (token: string): string => `'${token.replaceAll("'", "''")}'`;

/** All tokens of some words, each as it is written or with one slip of recognition. */
function wordsQuery({
  tokens,
  field,
  open,
}: Pick<Words, 'tokens' | 'open'> & { field: Words['field'] | 'tag' }): string {
  return tokens
    .map((token, i) => {
      const marked = (one: string) => lexeme(field ? inField(field, one) : one);
      const goesOn = open && i === tokens.length - 1 ? ':*' : '';
      const [own = token, ...slips] = field ? [token] : withSlips(token);
      return `(${[marked(own) + goesOn, ...slips.map(marked)].join(' | ')})`;
    })
    .join(' & ');
}

/** More spellings of one phrase than this are not tried. */
const MOST_SPELLINGS = 64;

/** Patterns of a sequence of tokens, one for each slip. */
function patterns({ tokens, field, open }: Words): string[] {
  const plain = (list: readonly string[]): string => `% ${list.join(' ')}${open ? '' : ' '}%`;
  const all = [plain(tokens)];
  if (field) return all;
  for (const [i, token] of tokens.entries()) {
    for (const slip of withSlips(token).slice(1)) {
      if (all.length >= MOST_SPELLINGS) return all;
      all.push(plain(tokens.with(i, slip)));
    }
  }
  return all;
}

/** Words of three letters and more, anywhere within others. */
function inside(asks: Words): Fragment {
  return sql()`x.sequence like ${`%${asks.tokens.join(' ')}%`}`;
}

function tagged(name: string, tags: TagIds): Fragment {
  const db = sql();
  if (!name) return db`not exists (select 1 from shot_tags st where st.shot_id = x.shot_id)`;
  return db`x.shot_id in (
    select st.shot_id from shot_tags st where st.tag_id = any(${[...(tags.get(name) ?? [])]}::uuid[]))`;
}

function keptIn(folder: string | null): Fragment {
  const db = sql();
  if (folder === null) {
    return db`exists (select 1 from copies c where c.shot_id = x.shot_id and c.confirmed)`;
  }
  return db`exists (select 1 from copies c join folders f on f.id = c.folder_id
    where c.shot_id = x.shot_id and c.confirmed and starts_with(lower(f.name), ${folder.toLowerCase()}))`;
}

/** Sources whose name or label begins so. */
const sourcesBy = (name: string): SourceName[] =>
  sourceNames.filter((source) =>
    [source, sourceLabels[source]].some((one) => fold(one).startsWith(fold(name))),
  );

/** Midnight with which a day begins where this computer is. */
const startOf = ({ year, month, day }: Day): Date => {
  // Beyond these years nothing is taken, and nothing can be asked of the database.
  const bounded = Math.max(1, Math.min(9_999, year));
  const date = new Date(bounded, month - 1, day);
  if (bounded < 100) date.setFullYear(bounded);
  return date;
};

/**
 * Which shots can have a tag of such a name, more than have it: so the tokens that are asked for
 * besides need not be looked at one shot after the other.
 */
function taggedTokens(name: string): string | null {
  const tokens = tokensOf(name);
  return tokens.length ? wordsQuery({ tokens, field: 'tag', open: true }) : null;
}

/** What is asked of a shot's tokens, as a tsquery; null where that is not by tokens. */
function byTokens(asks: Asks): string | null {
  if (asks.kind === 'words') return wordsQuery(asks);
  if (asks.kind === 'with') return `${lexeme(kindToken(asks.mark))}:*`;
  if (asks.kind === 'tag') return taggedTokens(asks.name);
  if (asks.kind !== 'from') return null;
  const sources = sourcesBy(asks.name).map((source) => lexeme(sourceToken(source)));
  return sources.length ? sources.join(' | ') : null;
}

/** What has to be asked besides the tokens; null for nothing. */
function besideTokens(asks: Asks, tags: TagIds): Fragment | null {
  const db = sql();
  switch (asks.kind) {
    case 'words':
      return asks.tokens.length < 2 ? null : db`x.sequence like any(${patterns(asks)})`;
    case 'from':
      return sourcesBy(asks.name).length ? null : db`false`;
    case 'tag':
      return tagged(asks.name, tags);
    case 'kept':
      return keptIn(asks.folder);
    case 'taken': {
      const after = asks.from ? db`x.taken_at >= ${startOf(asks.from)}` : db`true`;
      return asks.end ? db`(${after} and x.taken_at < ${startOf(asks.end)})` : after;
    }
    case 'size': {
      const { width, height } = asks;
      if (asks.compare === 'is') return db`(x.width = ${width} and x.height = ${height})`;
      return asks.compare === 'above'
        ? db`(x.width >= ${width} and x.height >= ${height})`
        : db`(x.width <= ${width} and x.height <= ${height})`;
    }
    case 'with':
    case 'unclear':
      return null;
  }
}

const all = (parts: readonly Fragment[]): Fragment =>
  parts.reduce((before, part) => sql()`${before} and ${part}`, sql()`true`);

const lookUp = (tokens: string): Fragment => sql()`x.tokens @@ ${tokens}::text::tsquery`;

/**
 * What must hold for all parts. All that tokens say, what they must not say as well, is looked up
 * in one go: the index knows it without a look at the shots.
 */
function holding(parts: readonly Part[], tags: TagIds): Fragment[] {
  const db = sql();
  const wanted: string[] = [];
  const unwanted: string[] = [];
  const besides: Fragment[] = [];
  for (const { asks, without } of parts) {
    // Which shots can have a tag is no help in telling which have not.
    const tokens = without && asks.kind === 'tag' ? null : byTokens(asks);
    const beside = besideTokens(asks, tags);
    if (!without) {
      if (tokens) wanted.push(`(${tokens})`);
      if (beside) besides.push(beside);
    } else if (tokens && !beside) unwanted.push(`!(${tokens})`);
    else
      besides.push(
        db`not (${all([...(tokens ? [lookUp(tokens)] : []), ...(beside ? [beside] : [])])})`,
      );
  }
  // By what must not be there alone nothing is found by an index.
  if (wanted.length === 0) return [...unwanted.map(lookUp), ...besides];
  return [lookUp([...wanted, ...unwanted].join(' & ')), ...besides];
}

/** What must hold of `x` in search for all that a query asks. */
export const conditions = (query: Query, tags: TagIds): Fragment =>
  all(holding(asking(query), tags));

/** The same, with words found within others. @returns null where that would not find more */
export function insideConditions(query: Query, tags: TagIds): Fragment | null {
  const parts = asking(query);
  const wider = (part: Part): Words | null => {
    const { asks, without } = part;
    const may = asks.kind === 'words' && !without && asks.field === null;
    return may && asks.tokens.join('').length >= 3 ? asks : null;
  };
  const words = parts.flatMap((part) => wider(part) ?? []);
  if (words.length === 0) return null;
  return all([
    ...words.map(inside),
    ...holding(
      parts.filter((part) => !wider(part)),
      tags,
    ),
  ]);
}

/** What a place is worth for fitness. */
const WORTH = {
  title: 8,
  tag: 6,
  window: 4,
  program: 3,
  description: 3,
  exact: 2,
  whole: 1,
} as const;

/** How well `x` fits the words of a query. */
export function fitness(query: Query): Fragment {
  const db = sql();
  let sum = db`0`;
  const add = (asked: string, worth: number) => {
    sum = db`${sum} + (x.tokens @@ ${asked}::text::tsquery)::int * ${worth}::int`;
  };
  for (const { asks, without } of asking(query)) {
    if (asks.kind !== 'words' || without) continue;
    for (const field of ['title', 'tag', 'window', 'program', 'description'] as const) {
      add(wordsQuery({ ...asks, field }), WORTH[field]);
    }
    const own = asks.tokens.map(lexeme);
    add(own.map((one) => `${one}:*`).join(' & '), WORTH.exact);
    add(own.join(' & '), WORTH.whole);
  }
  return sum;
}
