import {
  bentBounds,
  distanceToBent,
  middle,
  outwardAngle,
  sample,
  type BentLine,
} from '../../geometry/bend';
import type { Mapping } from '../../geometry/mapping';
import { add, distance, midpoint, snapDirection, subtract, type Point } from '../../geometry/point';
import { inflate, type Rect } from '../../geometry/rect';
import { type HeadShape } from '../names';
import type { Handle, NumberField } from '../contract';

export interface BentMark extends BentLine {
  colour: string;
  thickness: number;
  heads: 'none' | 'start' | 'end' | 'both';
  dashed: boolean;
  headShape: HeadShape;
  taper: boolean;
}

/** Length of a head along the line, and half its width, for a given thickness. */
const headLength = (thick: number): number => 8 + 3 * thick;
const headHalfWidth = (thick: number): number => 4 + 1.35 * thick;

export const hasHead = (mark: BentMark, end: 'from' | 'to'): boolean =>
  mark.heads === 'both' || mark.heads === (end === 'to' ? 'end' : 'start');

export function bentMarkBounds(mark: BentMark): Rect {
  const reach = mark.heads === 'none' ? 0 : headHalfWidth(mark.thickness);
  return inflate(bentBounds(mark), Math.max(mark.thickness / 2, reach) + 1);
}

export const bentMarkHit = (mark: BentMark, at: Point, tolerance: number): boolean =>
  distanceToBent(at, mark) <= mark.thickness / 2 + tolerance ||
  (['from', 'to'] as const).some((end) => hasHead(mark, end) && onHead(mark, end, at, tolerance));

/** True within the triangle of a head, or no further from it than the tolerance. */
function onHead(mark: BentMark, end: 'from' | 'to', at: Point, tolerance: number): boolean {
  const { length, halfWidth } = headSize(mark);
  const angle = outwardAngle(mark, end);
  const d = subtract(mark[end], at);
  const back = d.x * Math.cos(angle) + d.y * Math.sin(angle);
  const side = Math.abs(d.y * Math.cos(angle) - d.x * Math.sin(angle));
  const within = back >= -tolerance && back <= length + tolerance;
  return within && side <= (halfWidth * Math.max(0, back)) / length + tolerance;
}

/** Heads shrink with lines that are too short for them. */
export function headSize(mark: BentMark): { length: number; halfWidth: number } {
  const wanted = headLength(mark.thickness);
  const length = Math.min(wanted, curveLength(mark) * 0.6);
  return { length, halfWidth: (headHalfWidth(mark.thickness) * length) / wanted };
}

export const bentMarkHandles = (mark: BentLine): Handle[] => [
  { id: 'from', at: mark.from, role: 'end' },
  { id: 'to', at: mark.to, role: 'end' },
  { id: 'bend', at: middle(mark), role: 'bend' },
];

/** Within this many pixels of the chord the bend handle straightens the line. */
const STRAIGHT_WITHIN = 3;

export function pullBent<M extends BentMark>(mark: M, handle: string, to: Point, keep: boolean): M {
  if (handle === 'from') return { ...mark, from: keep ? snapDirection(mark.to, to, 15) : to };
  if (handle === 'to') return { ...mark, to: keep ? snapDirection(mark.from, to, 15) : to };
  if (handle !== 'bend') return mark;
  const chordMiddle = midpoint(mark.from, mark.to);
  const straight = distanceToBent(to, { ...mark, bend: null }) <= STRAIGHT_WITHIN;
  return { ...mark, bend: straight ? null : subtract(to, chordMiddle) };
}

export const moveBent = <M extends BentMark>(mark: M, by: Point): M => ({
  ...mark,
  from: add(mark.from, by),
  to: add(mark.to, by),
});

/** The middle of the curve is taken along, so a bend stays one. */
export function bentThrough<M extends BentMark>(mark: M, map: Mapping): M {
  const from = map.point(mark.from);
  const to = map.point(mark.to);
  const bend = mark.bend && subtract(map.point(middle(mark)), midpoint(from, to));
  return { ...mark, from, to, bend };
}

export const bentNumbers = (mark: BentLine): NumberField[] => [
  { id: 'from.x', label: 'Start x', value: mark.from.x },
  { id: 'from.y', label: 'Start y', value: mark.from.y },
  { id: 'to.x', label: 'End x', value: mark.to.x },
  { id: 'to.y', label: 'End y', value: mark.to.y },
  { id: 'bend.x', label: 'Bend x', value: mark.bend?.x ?? 0 },
  { id: 'bend.y', label: 'Bend y', value: mark.bend?.y ?? 0 },
];

export function withBentNumber<M extends BentMark>(mark: M, field: string, value: number): M {
  const [part, axis] = field.split('.');
  if (axis !== 'x' && axis !== 'y') return mark;
  if (part === 'from' || part === 'to')
    return { ...mark, [part]: { ...mark[part], [axis]: value } };
  if (part !== 'bend') return mark;
  const bend = { ...(mark.bend ?? { x: 0, y: 0 }), [axis]: value };
  return { ...mark, bend: bend.x === 0 && bend.y === 0 ? null : bend };
}

export function curveLength(line: BentLine): number {
  return sample(line).reduce((sum, p, i, all) => sum + (i ? distance(p, all[i - 1] ?? p) : 0), 0);
}
