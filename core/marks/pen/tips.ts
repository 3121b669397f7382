import { polygonHull } from 'd3-polygon';
import type { Point } from '../../geometry/point';
import { inflate, outerPixels } from '../../geometry/rect';
import { ovalPath } from '../../drawing/paths';
import type { Surface } from '../../drawing/surface';
import { parseHex } from '../../colour/colour';
import { randomFrom, seedOf } from '../../random/random';
import type { RgbaPixels } from '../../raster/pixels';
import type { PaintTools } from '../contract';
import { smoothPath, strokeExtent } from '../shared/strokeMark';
import type { PenMark } from './schema';
import { alongStroke, type Dab } from './along';
import { paintStrew } from './strew';

export function paintTip(surface: Surface, mark: PenMark, tools: PaintTools): void {
  surface.fillStyle = mark.colour;
  if (mark.tip === 'felt') paintFelt(surface, mark);
  else if (mark.tip === 'nib') paintNib(surface, mark);
  else if (mark.tip === 'chalk') paintChalk(surface, mark, tools);
  else if (mark.tip === 'strew') paintStrew(surface, mark);
  else paintSpeckle(surface, mark);
}

/** An even line with round ends; a tap leaves a dot. */
function paintFelt(surface: Surface, mark: PenMark): void {
  const [first] = mark.points;
  surface.beginPath();
  if (mark.points.length === 1 && first) {
    const r = mark.thickness / 2;
    ovalPath(surface, { x: first[0] - r, y: first[1] - r, width: 2 * r, height: 2 * r });
    surface.fill();
    return;
  }
  surface.strokeStyle = mark.colour;
  surface.lineWidth = mark.thickness;
  surface.lineCap = 'round';
  surface.lineJoin = 'round';
  smoothPath(surface, mark.points);
  surface.stroke();
}

/** A broad nib held at 45°: thick across it, thin along it, and thicker with pressure. */
function paintNib(surface: Surface, mark: PenMark): void {
  const dabs = alongStroke(mark, 2);
  const [first] = dabs;
  if (!first) return;
  const reach = (dab: Dab) => (mark.thickness / 2) * (0.55 + 0.9 * dab.pressure) * Math.SQRT1_2;
  /** No nib is without thickness. */
  const thin = Math.max(0.6, mark.thickness * 0.09);
  const corners = (dab: Dab): Point[] => {
    const r = reach(dab);
    return [
      { x: dab.x - r - thin, y: dab.y + r - thin },
      { x: dab.x + r - thin, y: dab.y - r - thin },
      { x: dab.x + r + thin, y: dab.y - r + thin },
      { x: dab.x - r + thin, y: dab.y + r + thin },
    ];
  };
  surface.beginPath();
  polygon(surface, corners(first));
  dabs.slice(1).forEach((dab, i) => {
    polygon(surface, hull([...corners(dabs[i] ?? first), ...corners(dab)]));
  });
  surface.fill();
}

function polygon(surface: Surface, points: readonly Point[]): void {
  points.forEach((p, i) => (i === 0 ? surface.moveTo(p.x, p.y) : surface.lineTo(p.x, p.y)));
  surface.closePath();
}

/** The convex hull; all turn the same way, so that a nonzero fill joins them. */
const hull = (points: readonly Point[]): Point[] =>
  (polygonHull(points.map(({ x, y }): [number, number] => [x, y])) ?? []).map(([x, y]) => ({
    x,
    y,
  }));

/** Dots of the spray for each pixel of the way, and their sides. */
const SPRAY = { each: 0.5, least: 1, share: 0.06 };

/** Sprayed dots, densest in the middle, the same on every repaint. */
function paintSpeckle(surface: Surface, mark: PenMark): void {
  const next = randomFrom(seedOf(mark.id));
  const radius = mark.thickness * 0.75;
  const side = Math.max(SPRAY.least, mark.thickness * SPRAY.share);
  const dabs = alongStroke(mark, 2);
  const count = Math.max(2, Math.round(mark.thickness * SPRAY.each));
  const dots = dabs.length === 1 ? count * 6 : count;
  surface.beginPath();
  for (const dab of dabs) {
    for (let i = 0; i < dots; i += 1) {
      const angle = next() * 2 * Math.PI;
      const r = radius * next() * (0.6 + 0.8 * dab.pressure - 0.4);
      surface.rect(dab.x + Math.cos(angle) * r, dab.y + Math.sin(angle) * r, side, side);
    }
  }
  surface.fill();
}

interface Chalked {
  x: number;
  y: number;
  pixels: RgbaPixels;
}

const chalked = new WeakMap<PenMark, Chalked>();

/**
 * A grainy line. The grain begins where the stroke does: wherever the whole lies, on the picture, on
 * a cut-out of it or among shapes, it looks the same.
 */
function paintChalk(surface: Surface, mark: PenMark, tools: PaintTools): void {
  let made = chalked.get(mark);
  if (!made) {
    made = chalkPixels(mark);
    chalked.set(mark, made);
  }
  surface.drawImage(tools.bitmap(made.pixels), made.x, made.y);
}

function chalkPixels(mark: PenMark): Chalked {
  const box = outerPixels(inflate(strokeExtent(mark), mark.thickness * 0.7 + 1));
  const { width, height } = box;
  const cover = new Uint8Array(width * height);
  for (const dab of alongStroke(mark, Math.max(1, mark.thickness / 8))) {
    const r = (mark.thickness / 2) * (0.7 + 0.6 * dab.pressure);
    dabOn(cover, width, height, { x: dab.x - box.x, y: dab.y - box.y }, r);
  }
  const { r, g, b } = parseHex(mark.colour) ?? { r: 0, g: 0, b: 0 };
  const data = new Uint8ClampedArray(width * height * 4);
  const seed = seedOf(mark.id);
  const [[startX, startY] = [0, 0]] = mark.points;
  const [left, top] = [box.x - Math.floor(startX), box.y - Math.floor(startY)];
  for (let i = 0; i < cover.length; i += 1) {
    const c = cover[i] ?? 0;
    if (c === 0) continue;
    const grain = grainAt(left + (i % width), top + Math.floor(i / width), seed);
    const alpha = c * (grain < 0.28 ? 0.12 : 0.55 + 0.45 * grain);
    data.set([r, g, b, alpha], i * 4);
  }
  return { x: box.x, y: box.y, pixels: { data, width, height } };
}

/** Raises the cover to what a round dab with a soft edge gives. */
function dabOn(cover: Uint8Array, width: number, height: number, at: Point, r: number): void {
  const y1 = Math.min(height - 1, Math.ceil(at.y + r));
  const x1 = Math.min(width - 1, Math.ceil(at.x + r));
  for (let y = Math.max(0, Math.floor(at.y - r)); y <= y1; y += 1) {
    for (let x = Math.max(0, Math.floor(at.x - r)); x <= x1; x += 1) {
      const d = Math.hypot(x + 0.5 - at.x, y + 0.5 - at.y);
      const c = Math.round(255 * Math.min(1, Math.max(0, (r - d) / Math.max(1, r * 0.2))));
      const i = y * width + x;
      if (c > (cover[i] ?? 0)) cover[i] = c;
    }
  }
}

/** 0–1 for a pixel, of two grain sizes. */
function grainAt(x: number, y: number, seed: number): number {
  const noise = (u: number, v: number) =>
    randomFrom(seed ^ Math.imul(u, 0x9e3779b1) ^ Math.imul(v, 0x85ebca6b))();
  return 0.6 * noise(x, y) + 0.4 * noise((x >> 1) + 7_919, (y >> 1) + 104_729);
}
