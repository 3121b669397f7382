import { control, cutBent, outwardAngle, sample, type BentLine } from '../../geometry/bend';
import type { Point } from '../../geometry/point';
import { ovalPath } from '../../drawing/paths';
import type { Surface } from '../../drawing/surface';
import { curveLength, hasHead, headSize, type BentMark } from './bentMark';

/** How thin a tapered body begins, as a share of its thickness. */
const THIN = 0.15;

/** Strokes the line, cut back under its heads, and paints the heads. */
export function paintBent(surface: Surface, mark: BentMark): void {
  const length = curveLength(mark);
  if (length === 0) return;
  const { length: head, halfWidth } = headSize(mark);
  const shaft = shaftOf(mark, length, head);
  surface.strokeStyle = mark.colour;
  surface.fillStyle = mark.colour;
  surface.lineJoin = 'round';
  if (mark.taper) fillTapered(surface, mark, shaft);
  else strokeShaft(surface, mark, shaft);
  for (const end of ['from', 'to'] as const) {
    if (hasHead(mark, end)) paintHead(surface, mark, end, head, halfWidth);
  }
}

/** An open head leaves the line whole; under the others it must not look out. */
function shaftOf(mark: BentMark, length: number, head: number): BentLine {
  let shaft: BentLine = { from: mark.from, to: mark.to, bend: mark.bend };
  const under = { solid: 0.7, open: 0.12, dot: 0.3 }[mark.headShape] * head;
  if (hasHead(mark, 'to')) shaft = cutBent(shaft, 1 - under / length, 'before');
  if (hasHead(mark, 'from')) {
    shaft = cutBent(shaft, Math.min(0.9, under / curveLength(shaft)), 'after');
  }
  return shaft;
}

function strokeShaft(surface: Surface, mark: BentMark, shaft: BentLine): void {
  surface.lineWidth = mark.thickness;
  surface.lineCap = mark.dashed || mark.heads === 'both' ? 'butt' : 'round';
  surface.setLineDash(mark.dashed ? [mark.thickness * 2.5, mark.thickness * 1.75] : []);
  const c = control(shaft);
  surface.beginPath();
  surface.moveTo(shaft.from.x, shaft.from.y);
  surface.quadraticCurveTo(c.x, c.y, shaft.to.x, shaft.to.y);
  surface.stroke();
  surface.setLineDash([]);
}

/** A body that grows from its tail to its head; with heads at both ends, from the middle. */
function fillTapered(surface: Surface, mark: BentMark, shaft: BentLine): void {
  const course = sample(shaft, 32);
  const last = course.length - 1;
  const growth = (t: number): number => {
    if (mark.heads === 'both') return Math.abs(2 * t - 1);
    return mark.heads === 'start' ? 1 - t : t;
  };
  const side = (sign: number) =>
    course.map((p, i): Point => {
      const before = course[Math.max(0, i - 1)] ?? p;
      const after = course[Math.min(last, i + 1)] ?? p;
      const along = Math.hypot(after.x - before.x, after.y - before.y) || 1;
      const half = (mark.thickness / 2) * (THIN + (1 - THIN) * growth(i / last)) * sign;
      const [nx, ny] = [-(after.y - before.y) / along, (after.x - before.x) / along];
      return { x: p.x + nx * half, y: p.y + ny * half };
    });
  surface.beginPath();
  [...side(1), ...side(-1).reverse()].forEach((p, i) =>
    i === 0 ? surface.moveTo(p.x, p.y) : surface.lineTo(p.x, p.y),
  );
  surface.closePath();
  surface.fill();
}

function paintHead(
  surface: Surface,
  mark: BentMark,
  end: 'from' | 'to',
  length: number,
  halfWidth: number,
): void {
  const tip = mark[end];
  const angle = outwardAngle(mark, end);
  const along = { x: Math.cos(angle), y: Math.sin(angle) };
  const place = (back: number, side: number): [number, number] => [
    tip.x - along.x * back - along.y * side,
    tip.y - along.y * back + along.x * side,
  ];
  surface.beginPath();
  if (mark.headShape === 'dot') {
    const r = halfWidth * 0.8;
    ovalPath(surface, { x: tip.x - r, y: tip.y - r, width: 2 * r, height: 2 * r });
    surface.fill();
    return;
  }
  if (mark.headShape === 'open') {
    // The line's own thickness must stay within the head's reach.
    const half = mark.thickness / 2;
    const wide = Math.max(1, halfWidth - half / 2);
    surface.moveTo(...place(length, wide));
    surface.lineTo(...place(half, 0));
    surface.lineTo(...place(length, -wide));
    surface.lineWidth = mark.thickness;
    surface.lineCap = 'round';
    surface.stroke();
    return;
  }
  surface.moveTo(tip.x, tip.y);
  surface.lineTo(...place(length, halfWidth));
  surface.lineTo(...place(length * 0.8, 0));
  surface.lineTo(...place(length, -halfWidth));
  surface.closePath();
  surface.fill();
}
