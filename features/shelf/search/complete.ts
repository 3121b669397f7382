import { fold } from '@/core/search/fold';

/** What may stand after a field's colon. */
export interface Known {
  tag: readonly string[];
  from: readonly string[];
  kept: readonly string[];
  with: readonly string[];
}

const dates = ['today', 'yesterday', 'this week', 'last week', 'this month', 'last month'];

const ways: Record<string, (known: Known) => readonly string[]> = {
  tag: (known) => [...known.tag, 'none'],
  from: (known) => known.from,
  kept: (known) => [...known.kept, 'none', 'any'],
  in: (known) => known.kept,
  with: (known) => known.with,
  on: () => dates,
  since: () => dates,
  before: () => dates,
  after: () => dates,
};

export interface Completion {
  /** What would stand in the field then, and where one goes on typing. */
  text: string;
  at: number;
  label: string;
}

const MOST = 8;

/** A field and the beginning of its value, right before the place where one types. */
const TYPED = /(?:^|\s)[-−–]?(\p{L}+):(?:"([^"]*)|(\S*))$/u;

/** A value as it is typed: in quotes where it has blanks. */
const asValue = (value: string): string => (/\s/.test(value) ? `"${value}"` : value);

/** How what is being typed at a place can go on. */
export function completions(text: string, at: number, known: Known): Completion[] {
  const before = text.slice(0, at);
  const found = TYPED.exec(before);
  const name = found?.[1]?.toLowerCase() ?? '';
  const of = Object.hasOwn(ways, name) ? ways[name] : undefined;
  if (!found || !of) return [];
  const begun = found[2] ?? found[3] ?? '';
  const start = before.length - begun.length - (found[2] === undefined ? 0 : 1);
  return of(known)
    .filter((value) => fold(value).startsWith(fold(begun)) && fold(value) !== fold(begun))
    .slice(0, MOST)
    .map((value) => {
      const head = `${text.slice(0, start)}${asValue(value)} `;
      return { text: head + text.slice(at).trimStart(), at: head.length, label: value };
    });
}
