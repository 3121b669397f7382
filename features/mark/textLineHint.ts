import type { StrokePoint } from '@/core/marks/contract';
import type { Mark } from '@/core/marks/registry';
import { textLineAt } from '@/core/screen/textLine';
import { sceneOf } from './scene';

/** Rows looked at above and below the stroke. */
const AROUND = 60;
const MARGIN = 2;

/** A straight highlighter laid over the line of text it was drawn along, as the picture shows it. */
export function alongTextLine(mark: Mark, path: readonly StrokePoint[]): Mark {
  const [first] = path;
  const last = path.at(-1);
  if (mark.kind !== 'highlighter' || !mark.straight || !first || !last) return mark;
  const left = Math.floor(Math.min(first.x, last.x));
  const width = Math.ceil(Math.abs(last.x - first.x));
  if (width < 8 || width > 8_000) return mark;
  const top = Math.floor(first.y) - AROUND;
  const { scene } = sceneOf();
  // Painted pixels, not the frame's: what is hidden tells nothing.
  const strip = scene.below(mark.id, { x: left, y: top, width, height: 2 * AROUND });
  const line = textLineAt(strip, first.y - top);
  if (!line) return mark;
  const thickness = Math.min(60, line.bottom - line.top + 2 * MARGIN);
  const y = top + (line.top + line.bottom) / 2;
  return { ...mark, thickness, points: mark.points.map(([x, , p]) => [x, y, p]) };
}
