import { union, type Rect } from '@/core/geometry/rect';
import type { PrivateKind } from '@/core/recognition/kinds';
import { merged, privateThings, type PrivateThing } from '@/core/recognition/privateThings';
import type { Paragraph } from '@/core/recognition/words';

export interface KnownThing {
  kind: PrivateKind;
  text: string;
  boxes: readonly Rect[];
}

/** Per kind: how many there are, how many were found; and how many findings were right. */
export type Scores = Record<
  string,
  { known: number; found: number; offered: number; right: number }
>;

const meet = (a: Rect, b: Rect): Rect => {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  const width = Math.min(a.x + a.width, b.x + b.width) - x;
  const height = Math.min(a.y + a.height, b.y + b.height) - y;
  return { x, y, width: Math.max(0, width), height: Math.max(0, height) };
};

/** A finding is right when it has the kind, covers nearly all of the words, and little beside. */
const COVERED = 0.9;
const AT_MOST = 1.35;

function fits(found: PrivateThing, known: KnownThing): boolean {
  if (found.kind !== known.kind) return false;
  const box = union(known.boxes);
  // A line's box is higher than its letters: only the width says how much is covered.
  const { width, height } = meet(found.box, box);
  return height > 0 && width >= COVERED * box.width && found.box.width <= AT_MOST * box.width;
}

function addScores(
  into: Scores,
  found: readonly PrivateThing[],
  known: readonly KnownThing[],
): void {
  const of = (kind: string) => (into[kind] ??= { known: 0, found: 0, offered: 0, right: 0 });
  for (const thing of known) {
    of(thing.kind).known += 1;
    if (found.some((f) => fits(f, thing))) of(thing.kind).found += 1;
  }
  for (const thing of found) {
    of(thing.kind).offered += 1;
    if (known.some((k) => fits(thing, k))) of(thing.kind).right += 1;
  }
}

/** The scores of all screens together. */
export function scoresOf(
  screens: readonly { known: readonly KnownThing[]; passes: readonly Paragraph[][] }[],
): Scores {
  const scores: Scores = {};
  for (const { known, passes } of screens)
    addScores(scores, merged(passes.map((paragraphs) => privateThings(paragraphs.flat()))), known);
  return scores;
}
