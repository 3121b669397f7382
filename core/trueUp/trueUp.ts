import simplify from 'simplify-js';
import { fitCircle, fitLine, fitOval } from '../geometry/fit';
import { distance, distanceToPolyline, midpoint, subtract, type Point } from '../geometry/point';
import { bottom, boundsOf, right, type Rect } from '../geometry/rect';

/** What a rough stroke may have been meant to be. */
export type Form =
  | { form: 'line' | 'arrow'; from: Point; to: Point }
  | { form: 'arc'; from: Point; to: Point; bend: Point }
  | { form: 'circle' | 'oval' | 'box'; rect: Rect }
  | { form: 'triangle'; points: [Point, Point, Point] }
  | { form: 'tick'; rect: Rect };

export interface Candidate {
  meant: Form;
  /** Root mean square distance of the stroke from the form, pixels. */
  residual: number;
}

/** A form with more freedom must fit better by this share of the stroke's size to be preferred. */
const COST: Record<Form['form'], number> = {
  line: 0,
  arrow: 0,
  tick: 0.004,
  arc: 0.008,
  circle: 0.009,
  oval: 0.01,
  box: 0.012,
  triangle: 0.014,
};
/** What fits worse than this share of the stroke's size was not meant. */
const MOST = 0.09;
/** The same for a circle: what is longer than wide was meant so. */
const MOST_OUT_OF_ROUND = 0.04;

/** The forms a stroke may be, the likeliest first; empty for a dot. */
export function formsOf(stroke: readonly Point[]): Candidate[] {
  const box = boundsOf(stroke);
  const size = Math.hypot(box.width, box.height);
  if (stroke.length < 3 || size < 8) return [];
  const points = evenly(stroke, Math.max(1, size / 100));
  const closed = distance(points[0] ?? box, points.at(-1) ?? box) < size * 0.25;
  const found = closed ? closedForms(points, size) : openForms(points, size);
  return found
    .filter((c) => c.residual <= size * MOST)
    .sort((a, b) => a.residual - b.residual + (COST[a.meant.form] - COST[b.meant.form]) * size);
}

/** Points at even distances along a stroke: a hand that dwells somewhere must not count more there. */
function evenly(stroke: readonly Point[], step: number): Point[] {
  const [first] = stroke;
  if (!first) return [];
  const points = [first];
  let before = first;
  let left = step;
  for (const p of stroke.slice(1)) {
    let length = distance(before, p);
    while (length >= left && length > 0) {
      const t = left / length;
      before = { x: before.x + (p.x - before.x) * t, y: before.y + (p.y - before.y) * t };
      points.push(before);
      length = distance(before, p);
      left = step;
    }
    left -= length;
    before = p;
  }
  return points;
}

function openForms(points: readonly Point[], size: number): Candidate[] {
  const line = fitLine(points);
  const found: Candidate[] = [
    { meant: { form: 'line', ...line.form }, residual: line.residual },
    ...arcOf(points, size),
  ];
  const corners = cornersOf(points, size * 0.06);
  return [...found, ...arrowOf(points, corners), ...tickOf(points, corners)];
}

/** An arc of at most half a circle, as a bent line between its ends. */
function arcOf(points: readonly Point[], size: number): Candidate[] {
  const fitted = fitCircle(points);
  const [first] = points;
  const last = points.at(-1);
  const middle = points[Math.floor(points.length / 2)];
  if (!fitted || !first || !last || !middle || fitted.form.radius > size * 6) return [];
  const { centre, radius } = fitted.form;
  const onto = (p: Point): Point => {
    const d = Math.max(1e-9, distance(p, centre));
    return {
      x: centre.x + ((p.x - centre.x) * radius) / d,
      y: centre.y + ((p.y - centre.y) * radius) / d,
    };
  };
  const [from, to] = [onto(first), onto(last)];
  const chord = midpoint(from, to);
  const bend = subtract(onto(middle), chord);
  return [{ meant: { form: 'arc', from, to, bend }, residual: fitted.residual }];
}

const cornersOf = (points: readonly Point[], tolerance: number): Point[] =>
  simplify([...points], tolerance, true);

const angleAt = (before: Point, corner: Point, after: Point): number => {
  const a = Math.atan2(before.y - corner.y, before.x - corner.x);
  const b = Math.atan2(after.y - corner.y, after.x - corner.x);
  const d = Math.abs(a - b) % (2 * Math.PI);
  return d > Math.PI ? 2 * Math.PI - d : d;
};

const lengthOf = (course: readonly Point[]): number =>
  course.reduce((sum, p, i) => sum + (i ? distance(p, course[i - 1] ?? p) : 0), 0);

/** A long shaft, and at its tip short barbs that run back along it. */
function arrowOf(points: readonly Point[], corners: readonly Point[]): Candidate[] {
  const [tail, tip, ...barbs] = corners;
  if (!tail || !tip || barbs.length < 1 || barbs.length > 4) return [];
  const shaft = distance(tail, tip);
  if (lengthOf([tip, ...barbs]) > shaft * 1.6) return [];
  const [first] = barbs;
  if (!first || distance(tip, first) > shaft * 0.6 || angleAt(tail, tip, first) > 1.2) return [];
  if (barbs.some((barb) => distance(barb, tip) > shaft * 0.6)) return [];
  return [
    {
      meant: { form: 'arrow', from: tail, to: tip },
      residual: rmsTo(points, corners),
    },
  ];
}

/** Down a little, then up and away: one sharp corner at the bottom. */
function tickOf(points: readonly Point[], corners: readonly Point[]): Candidate[] {
  const [from, corner, to] = corners;
  if (corners.length !== 3 || !from || !corner || !to) return [];
  const down = distance(from, corner);
  const up = distance(corner, to);
  const angle = angleAt(from, corner, to);
  if (corner.y <= from.y || to.y >= corner.y || to.x <= corner.x) return [];
  if (up < down * 1.2 || angle < 0.5 || angle > 2.1) return [];
  return [{ meant: { form: 'tick', rect: boundsOf(points) }, residual: rmsTo(points, corners) }];
}

function closedForms(points: readonly Point[], size: number): Candidate[] {
  const found: Candidate[] = [];
  const round = fitCircle(points);
  if (round && round.residual <= size * MOST_OUT_OF_ROUND) {
    const { centre: c, radius: r } = round.form;
    const rect = { x: c.x - r, y: c.y - r, width: 2 * r, height: 2 * r };
    found.push({ meant: { form: 'circle', rect }, residual: round.residual });
  }
  const oval = fitOval(points);
  if (oval) {
    const { centre, rx, ry } = oval.form;
    const rect = { x: centre.x - rx, y: centre.y - ry, width: 2 * rx, height: 2 * ry };
    found.push({ meant: { form: 'oval', rect }, residual: oval.residual });
  }
  const box = boxOf(points);
  found.push({ meant: { form: 'box', rect: box }, residual: rmsTo(points, outline(box)) });
  const three = triangleOf(points, size);
  if (three) {
    found.push({
      meant: { form: 'triangle', points: three },
      residual: rmsTo(points, [...three, three[0]]),
    });
  }
  return found;
}

const outline = (r: Rect): Point[] => [
  { x: r.x, y: r.y },
  { x: right(r), y: r.y },
  { x: right(r), y: bottom(r) },
  { x: r.x, y: bottom(r) },
  { x: r.x, y: r.y },
];

/** Each side in the mean of the points nearest to it, which is its least-squares place. */
function boxOf(points: readonly Point[]): Rect {
  let r = boundsOf(points);
  for (let round = 0; round < 6; round += 1) {
    const sides: [number[], number[], number[], number[]] = [[], [], [], []];
    for (const p of points) {
      const far = [p.x - r.x, right(r) - p.x, p.y - r.y, bottom(r) - p.y].map(Math.abs);
      const nearest = far.indexOf(Math.min(...far));
      sides[nearest as 0 | 1 | 2 | 3].push(nearest < 2 ? p.x : p.y);
    }
    const place = (values: readonly number[], otherwise: number) =>
      values.length ? values.reduce((a, b) => a + b, 0) / values.length : otherwise;
    const [x, far, y, low] = [
      place(sides[0], r.x),
      place(sides[1], right(r)),
      place(sides[2], r.y),
      place(sides[3], bottom(r)),
    ];
    r = { x, y, width: far - x, height: low - y };
  }
  return r;
}

/** Three corners, each side then fitted anew and met with its neighbours. */
function triangleOf(points: readonly Point[], size: number): [Point, Point, Point] | null {
  const [first] = points;
  if (!first) return null;
  for (let share = 0.05; share < 0.3; share += 0.02) {
    const corners = cornersOf([...points, first], size * share).slice(0, -1);
    const [a, b, c] = corners;
    if (corners.length === 3 && a && b && c) return [a, b, c];
    if (corners.length < 3) return null;
  }
  return null;
}

const rmsTo = (points: readonly Point[], course: readonly Point[]): number =>
  Math.sqrt(
    points.reduce((sum, p) => sum + distanceToPolyline(p, course) ** 2, 0) /
      Math.max(1, points.length),
  );
