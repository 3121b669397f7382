import { encloses, type Rect } from '../geometry/rect';
import { wordsOf, type ReadablePixels } from '../raster/pixels';

/** What encloses it is taken instead where it is at most so many times as large. */
const LARGER = 2;

/** What is scrolled with the blank margins around it, which moved without being seen to. */
export function withMargins(pixels: ReadablePixels, { x, y, width, height }: Rect): Rect {
  const words = wordsOf(pixels);
  const row = (v: number) => colourOf(words, v * pixels.width + x, 1, width);
  const column = (u: number) => colourOf(words, y * pixels.width + u, pixels.width, height);
  const top = blankUpTo(y, -1, pixels.height, row);
  const bottom = blankUpTo(y + height - 1, 1, pixels.height, row);
  const left = blankUpTo(x, -1, pixels.width, column);
  const right = blankUpTo(x + width - 1, 1, pixels.width, column);
  return { x: left, y: top, width: right - left + 1, height: bottom - top + 1 };
}

/** So much of a line is of one colour where it is blank: a pointer may lie on it. */
const BLANK = 0.94;

/** The one colour of some pixels; null where there are more. */
function colourOf(words: Uint32Array, from: number, step: number, count: number): number | null {
  const places = [0, count >> 1, count - 1].map((i) => words[from + i * step] as number);
  const [first = 0, middle = 0, last = 0] = places;
  const ground = middle === last ? last : first;
  let same = 0;
  for (let i = 0; i < count; i += 1) if (words[from + i * step] === ground) same += 1;
  return same >= BLANK * count ? ground : null;
}

/** The last line, beginning beside one, that is as blank as the first beside it. */
function blankUpTo(
  from: number,
  step: 1 | -1,
  end: number,
  colour: (at: number) => number | null,
): number {
  const isThere = (at: number) => at >= 0 && at < end;
  const ground = isThere(from + step) ? colour(from + step) : null;
  let last = from;
  while (ground !== null && isThere(last + step) && colour(last + step) === ground) last += step;
  return last;
}

const area = ({ width, height }: Rect): number => width * height;

/**
 * What a person sees as the thing that is scrolled: the largest of some boxes around it that is not
 * much larger, with its head and foot; else it alone.
 * @param boxes of windows and panels, found in the picture
 */
export function scrolledThing(part: Rect, boxes: readonly Rect[]): Rect {
  const around = boxes.filter((box) => encloses(box, part) && area(box) <= LARGER * area(part));
  return around.reduce((best, box) => (area(box) > area(best) ? box : best), part);
}
