import type { Rect } from '../../geometry/rect';
import type { RgbaPixels } from '../../raster/pixels';
import { textLineAt } from '../../screen/textLine';
import type { StrokePoint } from '../contract';
import type { HighlighterMark } from './schema';

/** Rows looked at above and below the stroke. */
const AROUND = 60;
const MARGIN = 2;

/**
 * A straight highlighter laid over the line of text it was drawn along, as the picture shows it.
 * @param below painted pixels of a part of the frame: of what is hidden they tell nothing
 */
export function alongTextLine(
  mark: HighlighterMark,
  path: readonly StrokePoint[],
  below: (wanted: Rect) => RgbaPixels,
): HighlighterMark {
  const [first] = path;
  const last = path.at(-1);
  if (!mark.straight || !first || !last) return mark;
  const left = Math.floor(Math.min(first.x, last.x));
  const width = Math.ceil(Math.abs(last.x - first.x));
  if (width < 8 || width > 8_000) return mark;
  const top = Math.floor(first.y) - AROUND;
  const line = textLineAt(below({ x: left, y: top, width, height: 2 * AROUND }), first.y - top);
  if (!line) return mark;
  const thickness = Math.min(60, line.bottom - line.top + 2 * MARGIN);
  const y = top + (line.top + line.bottom) / 2;
  return { ...mark, thickness, points: mark.points.map(([x, , p]) => [x, y, p]) };
}
