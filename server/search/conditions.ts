import type postgres from 'postgres';
import { sourceLabels, sourceNames, type SourceName } from '@/core/contracts/provenance';
import { fold, withSlips } from '@/core/search/fold';
import { inField, kindToken, sourceToken } from '@/core/search/indexed';
import { asking, type Asks, type Part, type Query } from '@/core/search/query';
import type { Day } from '@/core/search/when';
import { sql } from '../db/sql';
import { folded } from './indexing';

type Fragment = postgres.PendingQuery<postgres.Row[]>;
type Words = Extract<Asks, { kind: 'words' }>;

/** A token as a tsquery has it. Tokens are letters and digits; what they are marked with is not a sign of its. */
const lexeme = (token: string): string => `'${token.replaceAll("'", "''")}'`;

/** All tokens of some words, each as it is written or with one slip of recognition. */
export function wordsQuery({
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

function words(asks: Words): Fragment {
  const db = sql();
  const holds = db`x.tokens @@ ${wordsQuery(asks)}::text::tsquery`;
  if (asks.tokens.length < 2) return holds;
  return db`(${holds} and x.sequence like any(${patterns(asks)}))`;
}

/** Words of three letters and more, anywhere within others. */
export function inside(asks: Words): Fragment {
  return sql()`x.sequence like ${`%${asks.tokens.join(' ')}%`}`;
}

function tagged(name: string): Fragment {
  const db = sql();
  if (!name) return db`not exists (select 1 from shot_tags st where st.shot_id = x.shot_id)`;
  const given = folded(name);
  // The beginning of a name does where no tag has the whole of it.
  return db`exists (select 1 from shot_tags st join tags t on t.id = st.tag_id
    where st.shot_id = x.shot_id and (t.folded = ${given} or (starts_with(t.folded, ${given})
      and not exists (select 1 from tags whole where whole.folded = ${given}))))`;
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
export const sourcesBy = (name: string): SourceName[] =>
  sourceNames.filter((source) =>
    [source, sourceLabels[source]].some((one) => fold(one).startsWith(fold(name))),
  );

function from(name: string): Fragment {
  const asked = sourcesBy(name).map((source) => lexeme(sourceToken(source)));
  return asked.length ? sql()`x.tokens @@ ${asked.join(' | ')}::text::tsquery` : sql()`false`;
}

/** Midnight with which a day begins where this computer is. */
const startOf = ({ year, month, day }: Day): Date => {
  // Beyond these years nothing is taken, and nothing can be asked of the database.
  const bounded = Math.max(1, Math.min(9_999, year));
  const date = new Date(bounded, month - 1, day);
  if (bounded < 100) date.setFullYear(bounded);
  return date;
};

function condition(asks: Asks): Fragment {
  const db = sql();
  switch (asks.kind) {
    case 'words':
      return words(asks);
    case 'tag':
      return tagged(asks.name);
    case 'from':
      return from(asks.name);
    case 'kept':
      return keptIn(asks.folder);
    case 'with':
      return db`x.tokens @@ ${`${lexeme(kindToken(asks.mark))}:*`}::text::tsquery`;
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
    case 'unclear':
      return db`true`;
  }
}

const onePart = ({ asks, without }: Part): Fragment =>
  without ? sql()`not ${condition(asks)}` : condition(asks);

const all = (parts: readonly Fragment[]): Fragment =>
  parts.reduce((before, part) => sql()`${before} and ${part}`, sql()`true`);

/** What must hold of `x` in search for all that a query asks. */
export const conditions = (query: Query): Fragment => all(asking(query).map(onePart));

/** The same, with words found within others. @returns null where that would not find more */
export function insideConditions(query: Query): Fragment | null {
  let wider = false;
  const parts = asking(query).map((part) => {
    const { asks, without } = part;
    const may = asks.kind === 'words' && !without && asks.field === null;
    if (!may || asks.tokens.join('').length < 3) return onePart(part);
    wider = true;
    return inside(asks);
  });
  return wider ? all(parts) : null;
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
