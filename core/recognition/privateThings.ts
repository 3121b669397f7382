import { bottom, right, union, type Rect } from '../geometry/rect';
import { privateKinds, type PrivateKind } from './kinds';
import { keySpans, privateSpans, type Span } from './patterns';
import { boxOf, lineText, WITHIN_KEY, type Line, type LineText } from './words';

/** Something that looks private, and where it stands in the picture. */
export interface PrivateThing {
  kind: PrivateKind;
  text: string;
  box: Rect;
}

/** A little room around, so that nothing of a letter shows. */
const ROOM = 2;

const withRoom = ({ x, y, width, height }: Rect): Rect => ({
  x: Math.floor(x - ROOM),
  y: Math.floor(y - ROOM),
  width: Math.ceil(width + 2 * ROOM),
  height: Math.ceil(height + 2 * ROOM),
});

const found = (line: Line, read: LineText, spans: readonly Span[]): PrivateThing[] =>
  spans.map(({ kind, start, end }) => ({
    kind,
    text: read.text.slice(start, end).trim(),
    box: withRoom(boxOf(line, read, start, end)),
  }));

/** What looks private in recognised lines. */
export function privateThings(lines: readonly Line[]): PrivateThing[] {
  return lines.flatMap((line) => {
    const plain = lineText(line);
    const close = lineText(line, WITHIN_KEY);
    return merged([
      found(line, plain, privateSpans(plain.text)),
      found(line, close, keySpans(close.text)),
    ]);
  });
}

const shared = (a: Rect, b: Rect): number => {
  const width = Math.min(right(a), right(b)) - Math.max(a.x, b.x);
  const height = Math.min(bottom(a), bottom(b)) - Math.max(a.y, b.y);
  return width > 0 && height > 0 ? width * height : 0;
};

const area = (r: Rect): number => r.width * r.height;

/** So much of the smaller box makes two findings one. */
const SAME = 0.6;

/**
 * Findings of several passes over one picture as one list: what was found twice is there once, with
 * the place that covers both.
 */
export function merged(passes: readonly (readonly PrivateThing[])[]): PrivateThing[] {
  const kept: PrivateThing[] = [];
  for (const thing of passes.flat()) {
    const at = kept.findIndex(
      (other) => shared(other.box, thing.box) > SAME * Math.min(area(other.box), area(thing.box)),
    );
    const other = kept[at];
    if (!other) kept.push(thing);
    else kept[at] = joined(other, thing);
  }
  return kept.sort((a, b) => a.box.y - b.box.y || a.box.x - b.box.x);
}

const order = Object.keys(privateKinds);

/** The longer reading of two; of two kinds the one whose box is larger. */
function joined(a: PrivateThing, b: PrivateThing): PrivateThing {
  const same = a.kind === b.kind;
  const larger = area(b.box) > area(a.box) * 1.2 ? b : a;
  const chosen = same ? (b.text.length > a.text.length ? b : a) : larger;
  return { ...chosen, box: union([a.box, b.box]) };
}

/** How many there are of each kind, in the order they are named. */
export const countByKind = (things: readonly PrivateThing[]): [PrivateKind, number][] =>
  order.flatMap((kind) => {
    const count = things.filter((thing) => thing.kind === kind).length;
    return count ? [[kind as PrivateKind, count] as [PrivateKind, number]] : [];
  });
