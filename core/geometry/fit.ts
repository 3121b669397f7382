import { distance, type Point } from './point';

/** A fitted form and how far the points lie from it: root mean square, in pixels. */
export interface Fitted<F> {
  form: F;
  residual: number;
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, v) => sum + v, 0) / Math.max(1, values.length);

const rms = (values: readonly number[]): number => Math.sqrt(mean(values.map((v) => v * v)));

/** The line with the least sum of squared distances, from the first to the last point along it. */
export function fitLine(points: readonly Point[]): Fitted<{ from: Point; to: Point }> {
  const c = { x: mean(points.map((p) => p.x)), y: mean(points.map((p) => p.y)) };
  let [xx, xy, yy] = [0, 0, 0];
  for (const p of points) {
    const [dx, dy] = [p.x - c.x, p.y - c.y];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const u = { x: Math.cos(angle), y: Math.sin(angle) };
  const along = (p: Point) => (p.x - c.x) * u.x + (p.y - c.y) * u.y;
  const at = (d: number): Point => ({ x: c.x + u.x * d, y: c.y + u.y * d });
  const first = points[0] ?? c;
  const last = points.at(-1) ?? c;
  return {
    form: { from: at(along(first)), to: at(along(last)) },
    residual: rms(points.map((p) => (p.y - c.y) * u.x - (p.x - c.x) * u.y)),
  };
}

export interface Circle {
  centre: Point;
  radius: number;
}

/**
 * The circle with the least sum of squared distances (W. Gander, G. H. Golub, R. Strebel,
 * Least-squares fitting of circles and ellipses, BIT 34, 1994, §3: Gauss–Newton from the
 * algebraic fit).
 * @returns null for fewer than three points or points on a line
 */
export function fitCircle(points: readonly Point[]): Fitted<Circle> | null {
  let circle = algebraicCircle(points);
  if (!circle) return null;
  for (let round = 0; round < 50; round += 1) {
    const step = gaussNewton(points, circle);
    if (!step) break;
    circle = {
      centre: { x: circle.centre.x + step[0], y: circle.centre.y + step[1] },
      radius: circle.radius + step[2],
    };
    if (Math.hypot(...step) < 1e-9 * Math.max(1, circle.radius)) break;
  }
  const { centre, radius } = circle;
  if (!Number.isFinite(radius) || radius <= 0) return null;
  return { form: circle, residual: rms(points.map((p) => distance(p, centre) - radius)) };
}

/** x² + y² + a·x + b·y + c = 0 by least squares (Kåsa 1976), about the mean. */
function algebraicCircle(points: readonly Point[]): Circle | null {
  if (points.length < 3) return null;
  const m = { x: mean(points.map((p) => p.x)), y: mean(points.map((p) => p.y)) };
  let [uu, uv, vv, uz, vz] = [0, 0, 0, 0, 0];
  for (const p of points) {
    const [u, v] = [p.x - m.x, p.y - m.y];
    const z = u * u + v * v;
    uu += u * u;
    uv += u * v;
    vv += v * v;
    uz += u * z;
    vz += v * z;
  }
  const det = uu * vv - uv * uv;
  if (Math.abs(det) < 1e-9 * Math.max(1, uu * vv)) return null;
  const a = (uz * vv - vz * uv) / det / 2;
  const b = (vz * uu - uz * uv) / det / 2;
  const radius = Math.sqrt(a * a + b * b + (uu + vv) / points.length);
  return { centre: { x: m.x + a, y: m.y + b }, radius };
}

function gaussNewton(points: readonly Point[], { centre, radius }: Circle): Vector | null {
  const rows = points.map((p): [Vector, number] => {
    const d = Math.max(1e-12, distance(p, centre));
    return [[(centre.x - p.x) / d, (centre.y - p.y) / d, -1], d - radius];
  });
  const normal: Matrix = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ];
  const right: Vector = [0, 0, 0];
  for (const [row, residual] of rows) {
    for (const i of [0, 1, 2] as const) {
      for (const j of [0, 1, 2] as const) normal[i][j] += row[i] * row[j];
      right[i] -= row[i] * residual;
    }
  }
  return solve3(normal, right);
}

type Vector = [number, number, number];
type Matrix = [Vector, Vector, Vector];

/** Cramer's rule. */
function solve3(m: Matrix, r: Vector): Vector | null {
  const det = (a: Matrix) =>
    a[0][0] * (a[1][1] * a[2][2] - a[1][2] * a[2][1]) -
    a[0][1] * (a[1][0] * a[2][2] - a[1][2] * a[2][0]) +
    a[0][2] * (a[1][0] * a[2][1] - a[1][1] * a[2][0]);
  const d = det(m);
  if (Math.abs(d) < 1e-12) return null;
  const column = (i: 0 | 1 | 2): number => {
    const swapped = m.map((row, k) => {
      const copy: Vector = [...row];
      copy[i] = r[k] ?? 0;
      return copy;
    }) as Matrix;
    return det(swapped) / d;
  };
  return [column(0), column(1), column(2)];
}

export interface Ellipse {
  centre: Point;
  rx: number;
  ry: number;
}

/**
 * The upright ellipse a·x² + b·y² + c·x + d·y = 1 with the least algebraic residual, and the
 * distances from it along the rays from its middle.
 */
export function fitOval(points: readonly Point[]): Fitted<Ellipse> | null {
  if (points.length < 5) return null;
  const m = { x: mean(points.map((p) => p.x)), y: mean(points.map((p) => p.y)) };
  const size = Math.max(
    1,
    ...points.map((p) => Math.max(Math.abs(p.x - m.x), Math.abs(p.y - m.y))),
  );
  const rows = points.map((p) => {
    const [x, y] = [(p.x - m.x) / size, (p.y - m.y) / size];
    return [x * x, y * y, x, y];
  });
  const solved = leastSquares(rows);
  if (!solved) return null;
  const [a = 0, b = 0, c = 0, d = 0] = solved;
  if (a <= 0 || b <= 0) return null;
  const [cx, cy] = [-c / (2 * a), -d / (2 * b)];
  const k = 1 + a * cx * cx + b * cy * cy;
  const [rx, ry] = [Math.sqrt(k / a) * size, Math.sqrt(k / b) * size];
  const centre = { x: m.x + cx * size, y: m.y + cy * size };
  const residual = rms(
    points.map((p) => {
      const [dx, dy] = [p.x - centre.x, p.y - centre.y];
      const level = Math.hypot(dx / rx, dy / ry);
      return level === 0 ? Math.min(rx, ry) : Math.hypot(dx, dy) * (1 - 1 / level);
    }),
  );
  return { form: { centre, rx, ry }, residual };
}

/** Solves rows · v = 1 in the least-squares sense by Gaussian elimination of the normal equations. */
function leastSquares(rows: readonly number[][]): number[] | null {
  const n = rows[0]?.length ?? 0;
  const m = Array.from({ length: n }, (_, i) => [
    ...Array.from({ length: n }, (__, j) =>
      rows.reduce((sum, row) => sum + (row[i] ?? 0) * (row[j] ?? 0), 0),
    ),
    rows.reduce((sum, row) => sum + (row[i] ?? 0), 0),
  ]);
  for (let i = 0; i < n; i += 1) {
    const pivot = m
      .slice(i)
      .reduce(
        (best, row, k) => (Math.abs(row[i] ?? 0) > Math.abs(m[best]?.[i] ?? 0) ? i + k : best),
        i,
      );
    [m[i], m[pivot]] = [m[pivot] ?? [], m[i] ?? []];
    const top = m[i]?.[i] ?? 0;
    if (Math.abs(top) < 1e-12) return null;
    for (let k = 0; k < n; k += 1) {
      if (k === i) continue;
      const by = (m[k]?.[i] ?? 0) / top;
      m[k] = (m[k] ?? []).map((v, j) => v - by * (m[i]?.[j] ?? 0));
    }
  }
  return m.map((row, i) => (row[n] ?? 0) / (row[i] ?? 1));
}
