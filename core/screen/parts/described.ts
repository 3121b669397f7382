import type { Size } from '../../geometry/size';
import { encloses, intersection, type Rect } from '../../geometry/rect';
import { isSame } from './same';

/** A part as the program that drew it describes it. */
export interface DescribedPart extends Rect {
  /** What it is and what it is called, such as: button “Save”. */
  words: string;
  /** The box is that of what stands in it, without the space and the border around. */
  inner?: true | undefined;
}

/** A part of the screen; with words where the program that drew it has told them. */
export interface Part extends Rect {
  words?: string;
}

/** Space and border around what stands in a control are hardly wider, px. */
const PADDING = 20;

/**
 * Parts found in the pixels and parts that programs described, as one list: what is described goes
 * before what was found at the same place. Where a description knows only what stands inside a
 * control, the box found around that alone is the control's.
 * @param frame the picture's size: windows reach over its edges, and parts of them end there
 */
export function withDescribed(
  found: readonly Rect[],
  described: readonly DescribedPart[],
  frame: Size,
): Part[] {
  // Of a picture of the browser's own, size is nothing that spreads.
  const whole = { x: 0, y: 0, width: frame.width, height: frame.height };
  const named = described.flatMap(({ words, inner, ...box }): Part[] => {
    const around = inner && aroundAlone(box, found, described);
    const seen = intersection(around ?? box, whole);
    return seen ? [{ ...seen, words }] : [];
  });
  const single: Part[] = [];
  for (const part of named) {
    const same = single.find((other) => isSame(other, part));
    if (!same) single.push(part);
    // A row or a button may be called only by the words that fill it.
    else if (!same.words?.includes('“')) same.words = `${same.words} ${nameIn(part)}`.trim();
  }
  return [...found.filter((f) => !single.some((part) => isSame(part, f))), ...single];
}

const nameIn = ({ words = '' }: Part): string =>
  words.includes('“') ? words.slice(words.indexOf('“')) : '';

/** The smallest found box that lies closely around a described one and around no other beside it. */
function aroundAlone(
  box: Rect,
  found: readonly Rect[],
  described: readonly Rect[],
): Rect | undefined {
  const grown = {
    x: box.x - PADDING,
    y: box.y - PADDING,
    width: box.width + 2 * PADDING,
    height: box.height + 2 * PADDING,
  };
  const close = found
    .filter((f) => encloses(f, box) && encloses(grown, f))
    .sort((a, b) => a.width * a.height - b.width * b.height);
  return close.find((f) => described.every((d) => !encloses(f, d) || encloses(box, d)));
}
