import { z } from 'zod';
import type { Rect } from '../geometry/rect';
import { groups, type MarkKind, type MarkTools } from './contract';
import * as kinds from './kinds';
import { firstStyle, type Style } from './style';

type Kinds = typeof kinds;
export type MarkName = keyof Kinds;
type SchemaOf<N extends MarkName> = Kinds[N]['schema'];

const [anySchema, ...otherSchemas] = Object.values(kinds).map(({ schema }) => schema);
if (!anySchema) throw new Error('There are no kinds of marks.');

/** A mark of any kind. */
export const markSchema = z.discriminatedUnion('kind', [anySchema, ...otherSchemas]);
export type Mark = z.infer<SchemaOf<MarkName>>;
/** A mark as it may be written down: settings with a usual value may be left out. */
export type MarkInput = z.input<SchemaOf<MarkName>>;

/** The kinds by their names, each seen as a kind of any mark: it is only given marks of its own name. */
const byName: Record<MarkName, MarkKind<Mark>> = map(({ kind }) => kind);

function map<T>(make: (kind: Kinds[MarkName]) => T): Record<MarkName, T> {
  const made = Object.entries(kinds).map(([name, kind]) => [name, make(kind)]);
  return Object.fromEntries(made) as Record<MarkName, T>;
}

const placeOf = (name: MarkName): number =>
  groups.indexOf(byName[name].group) * 1_000 + byName[name].rank;

const isName = (name: string): name is MarkName => Object.hasOwn(kinds, name);

/** The names of all kinds, in the order of their tools. */
export const markNames: readonly MarkName[] = Object.keys(kinds)
  .filter(isName)
  .sort((a, b) => placeOf(a) - placeOf(b));

/** The kind behind a name or a mark, seen as a kind of any mark. */
export const kindOf = (of: MarkName | Mark): MarkKind<Mark> =>
  byName[typeof of === 'string' ? of : of.kind];

const bounds = new WeakMap<Mark, { tools: unknown; rect: Rect }>();

/** The bounds of a mark, worked out once: a mark that changes is another one. */
export function markBounds(mark: Mark, tools: MarkTools): Rect {
  const known = bounds.get(mark);
  if (known?.tools === tools.shaper) return known.rect;
  const rect = kindOf(mark).bounds(mark, tools);
  bounds.set(mark, { tools: tools.shaper, rect });
  return rect;
}

/** What each tool starts with before anybody has changed it. */
export const firstStyles: Record<MarkName, Style> = map(({ kind }) => ({
  ...firstStyle,
  ...kind.first,
}));

/** Whether a mark hides what is below it. */
export const hides = (of: MarkName | Mark): boolean => kindOf(of).hide !== undefined;

/** Whether it hides in what leaves: switched off it does until a person agreed to show it. */
export const hidesLeaving = (mark: Mark): boolean =>
  hides(mark) && !(mark.off && 'uncovered' in mark && mark.uncovered === true);

/** How much of what is below a mark covers, 0–1; what hides covers all of it. */
export const opacityOf = (mark: Mark): number => ('opacity' in mark && mark.opacity) || 1;

/** How a mark holds words; none where it bears none. */
export function wordsOf(mark: Mark): MarkKind<Mark>['words'] {
  const { words } = kindOf(mark);
  return words?.holds && !words.holds(mark) ? undefined : words;
}

/** The keys of the held pictures that a mark shows. */
export const picturesOf = (mark: Mark): readonly string[] => kindOf(mark).pictures?.(mark) ?? [];

const tidying = markNames.filter((name) => kindOf(name).tidy !== undefined);

/**
 * The marks with those that count or go together put right, kind by kind; null where all are right.
 */
export function tidied(marks: readonly Mark[]): readonly Mark[] | null {
  const right = tidying.flatMap((name) => {
    const those = marks.filter((mark) => mark.kind === name);
    return kindOf(name).tidy?.(those) ?? [];
  });
  if (right.length === 0) return null;
  const byId = new Map(right.map((mark) => [mark.id, mark]));
  return marks.map((mark) => byId.get(mark.id) ?? mark);
}
