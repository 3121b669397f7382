import { right, bottom, type Rect } from '../geometry/rect';

/** Which pixels of a rectangle belong to an area: row-major, width × height, 0 or 1. */
export interface Mask extends Rect {
  data: Uint8Array;
  /** True when every pixel belongs to it. */
  whole: boolean;
}

export type Outline =
  | ({ area: 'box' } & Rect)
  | ({ area: 'oval' } & Rect)
  | { area: 'free'; points: readonly (readonly [number, number])[] };

/**
 * Every pixel that an area touches, however little, cut to `within`: a half-touched pixel counts as
 * wholly touched, so nothing of it can show through an antialiased edge.
 * @returns null when it touches no pixel there
 */
export function maskOf(outline: Outline, within: Rect): Mask | null {
  const box = touchedBox(outline, within);
  if (!box) return null;
  const data = new Uint8Array(box.width * box.height);
  const mask: Mask = { ...box, data, whole: outline.area === 'box' };
  if (outline.area === 'box') mask.data.fill(1);
  else if (outline.area === 'oval') fillOval(mask, outline);
  else fillLoop(mask, outline.points);
  return mask;
}

/** The rectangle of all pixels that an area touches; null when there are none within. */
export function touchedBox(outline: Outline, within: Rect): Rect | null {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  if (outline.area === 'free') {
    for (const [x, y] of outline.points) {
      x0 = Math.min(x0, x - 1);
      y0 = Math.min(y0, y - 1);
      x1 = Math.max(x1, x + 1);
      y1 = Math.max(y1, y + 1);
    }
  } else [x0, y0, x1, y1] = [outline.x, outline.y, right(outline), bottom(outline)];
  x0 = Math.max(Math.floor(x0), within.x);
  y0 = Math.max(Math.floor(y0), within.y);
  x1 = Math.min(Math.ceil(x1), right(within));
  y1 = Math.min(Math.ceil(y1), bottom(within));
  return x1 > x0 && y1 > y0 ? { x: x0, y: y0, width: x1 - x0, height: y1 - y0 } : null;
}

/** A pixel is touched when the nearest point of its square lies inside the oval. */
function fillOval(mask: Mask, r: Rect): void {
  const [cx, cy] = [r.x + r.width / 2, r.y + r.height / 2];
  const [rx, ry] = [Math.max(r.width / 2, 0.5), Math.max(r.height / 2, 0.5)];
  const reach = (from: number, c: number) => Math.max(0, Math.abs(from + 0.5 - c) - 0.5);
  for (let y = 0; y < mask.height; y += 1) {
    const dy = (reach(mask.y + y, cy) / ry) ** 2;
    for (let x = 0; x < mask.width; x += 1) {
      if ((reach(mask.x + x, cx) / rx) ** 2 + dy <= 1) mask.data[y * mask.width + x] = 1;
    }
  }
}

/** What a closed line goes around, by the nonzero rule, and every pixel the line itself touches. */
function fillLoop(mask: Mask, points: readonly (readonly [number, number])[]): void {
  const edges = points.map((p, i) => [p, points[(i + 1) % points.length] ?? p] as const);
  for (let y = 0; y < mask.height; y += 1) {
    const at = mask.y + y + 0.5;
    const crossings = edges
      .filter(([a, b]) => a[1] <= at !== b[1] <= at)
      .map(([a, b]) => ({
        x: a[0] + ((at - a[1]) * (b[0] - a[0])) / (b[1] - a[1]),
        turn: a[1] < b[1] ? 1 : -1,
      }))
      .sort((a, b) => a.x - b.x);
    let winding = 0;
    crossings.forEach(({ x, turn }, i) => {
      winding += turn;
      const next = crossings[i + 1];
      if (winding !== 0 && next) fillRow(mask, y, x, next.x);
    });
  }
  for (const [a, b] of edges) touchLine(mask, a, b);
}

function fillRow(mask: Mask, y: number, from: number, to: number): void {
  const first = Math.max(0, Math.floor(from) - mask.x);
  const last = Math.min(mask.width, Math.ceil(to) - mask.x);
  if (last > first) mask.data.fill(1, y * mask.width + first, y * mask.width + last);
}

/** Steps of half a pixel, each touching the pixels around it. */
function touchLine(mask: Mask, a: readonly [number, number], b: readonly [number, number]): void {
  const steps = Math.max(1, Math.ceil(Math.hypot(b[0] - a[0], b[1] - a[1]) * 2));
  for (let i = 0; i <= steps; i += 1) {
    const px = a[0] + ((b[0] - a[0]) * i) / steps - mask.x;
    const py = a[1] + ((b[1] - a[1]) * i) / steps - mask.y;
    for (const dx of [-0.5, 0.5]) {
      for (const dy of [-0.5, 0.5]) {
        const [x, y] = [Math.floor(px + dx), Math.floor(py + dy)];
        if (x >= 0 && y >= 0 && x < mask.width && y < mask.height) {
          mask.data[y * mask.width + x] = 1;
        }
      }
    }
  }
}

/**
 * A mask grown by some pixels to every side and cut to `within`.
 * @returns null when nothing of it is left there
 */
export function widened(mask: Mask | null, by: number, within: Rect): Mask | null {
  if (!mask || by === 0) return mask;
  const x = Math.max(mask.x - by, within.x);
  const y = Math.max(mask.y - by, within.y);
  const width = Math.min(right(mask) + by, right(within)) - x;
  const height = Math.min(bottom(mask) + by, bottom(within)) - y;
  if (width <= 0 || height <= 0) return null;
  if (mask.whole) {
    return { x, y, width, height, data: new Uint8Array(width * height).fill(1), whole: true };
  }
  const across = new Uint8Array(mask.height * width);
  for (let row = 0; row < mask.height; row += 1) {
    for (let at = 0; at < mask.width; at += 1) {
      if (!mask.data[row * mask.width + at]) continue;
      const from = Math.max(0, mask.x + at - by - x);
      const to = Math.min(width, mask.x + at + by + 1 - x);
      if (to > from) across.fill(1, row * width + from, row * width + to);
    }
  }
  const data = new Uint8Array(width * height);
  for (let row = 0; row < mask.height; row += 1) {
    const from = Math.max(0, mask.y + row - by - y);
    const to = Math.min(height, mask.y + row + by + 1 - y);
    for (let at = 0; at < width; at += 1) {
      if (!across[row * width + at]) continue;
      for (let line = from; line < to; line += 1) data[line * width + at] = 1;
    }
  }
  return { x, y, width, height, data, whole: false };
}
