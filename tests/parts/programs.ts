import { findParts } from '@/core/screen/parts';
import { bottom, encloses, inflate, right, type Rect } from '@/core/geometry/rect';
import { partWords } from '@/core/naming/partWords';
import { isSame } from '@/core/screen/parts/same';
import type { ReadablePixels } from '@/core/raster/pixels';
import type { Thing } from '@/server/accessibility/describe';

/**
 * How well the parts of a real program are found, held against what it describes by AT-SPI.
 *
 * An element is whatever somebody would point at (core/naming/partWords.ts) of 12 × 12 px and more.
 * It is found where a box lies within 4 px of its own on every side. GTK 4 tells only where the
 * content of a control lies: there a box that lies around it, by the same space left and right and
 * the same above and below, is its own too. What is offered is right where it is the box of
 * anything described, or a piece of a control.
 */
export interface ProgramScore {
  elements: number;
  found: number;
  /** Those with a drawn edge on all sides. */
  edged: number;
  edgedFound: number;
  offered: number;
  right: number;
}

const SMALLEST = 12;
/** Windows are not what Part is for: their list tells them. */
const tops = new Set(['frame', 'window', 'dialog', 'alert']);
/** Of what is larger than that nothing inside is a mere piece. */
const CONTROL = 60_000;
/** What consists of rows, entries or tabs: they are its pieces, which programs describe or not. */
const lists = new Set([
  ...['table', 'tree table', 'tree', 'list', 'list box', 'grid', 'text', 'terminal', 'menu bar'],
  ...['tool bar', 'toolbar', 'page tab list', 'tab list', 'popup menu', 'menu', 'document text'],
]);
/** Such a piece is hardly higher, px. */
const PIECE = 64;
/** Space around the content of a control, px. */
const PADDING = 20;

const controls = new Set([
  ...['push button', 'toggle button', 'button', 'check box', 'checkbox', 'radio button', 'radio'],
  ...[
    'combo box',
    'spin button',
    'slider',
    'scroll bar',
    'entry',
    'text',
    'text box',
    'search box',
  ],
  ...['password text', 'page tab', 'tab', 'menu', 'menu item', 'check menu item', 'switch', 'link'],
  ...['radio menu item', 'list item', 'tree item', 'table cell', 'grid cell', 'icon', 'image'],
  ...['table column header', 'column header', 'progress bar', 'level bar', 'status bar', 'label'],
]);

/** True where the pixels along a side differ from those beyond it, within 2 px of where it is told. */
function edgeAlong({ data, width, height }: ReadablePixels, r: Rect, side: number): boolean {
  const upright = side < 2;
  const [from, length] = upright ? [r.y, r.height] : [r.x, r.width];
  const line = [r.x, right(r), r.y, bottom(r)][side] ?? 0;
  for (let by = -2; by <= 2; by += 1) {
    const [a, b] = [line + by - 1, line + by];
    if (a < 0 || b >= (upright ? width : height)) continue;
    let edges = 0;
    for (let i = from; i < from + length; i += 1) {
      const [p, q] = upright ? [i * width + a, i * width + b] : [a * width + i, b * width + i];
      const far = Math.max(
        ...[0, 1, 2].map((c) => Math.abs((data[p * 4 + c] ?? 0) - (data[q * 4 + c] ?? 0))),
      );
      if (far >= 8) edges += 1;
    }
    if (edges >= length * 0.7) return true;
  }
  return false;
}

/** A box closely around the content of a control, with even space. */
function isAround(box: Rect, { x, y, width, height }: Rect): boolean {
  const [left, far] = [x - box.x, right(box) - x - width];
  const [above, below] = [y - box.y, bottom(box) - y - height];
  const even = Math.abs(left - far) <= 4 && Math.abs(above - below) <= 4;
  return even && Math.min(left, above) >= -4 && Math.max(left, above) <= PADDING;
}

/** @param window the program's own window: what is beyond it is not looked at */
export function scoreProgram(
  picture: ReadablePixels,
  things: readonly Thing[],
  window: Rect,
): ProgramScore {
  const offered = findParts(picture).filter((r) => encloses(inflate(window, 2), r));
  const isFound = (t: Thing) => offered.some((o) => isSame(o, t) || (t.inner && isAround(o, t)));
  const wide = (t: Rect) => t.width >= SMALLEST && t.height >= SMALLEST;
  const elements = things.filter(
    (t) => wide(t) && !tops.has(t.role) && partWords(t.role, t.name) !== null,
  );
  const edged = elements.filter((t) => [0, 1, 2, 3].every((side) => edgeAlong(picture, t, side)));
  const pieces = things.filter((t) => controls.has(t.role) && t.width * t.height <= CONTROL);
  const whole = things.filter((t) => lists.has(t.role));
  const isRight = (o: Rect) =>
    things.some((t) => isSame(o, t) || (t.inner && isAround(o, t))) ||
    pieces.some((t) => encloses(inflate(t, 2), o)) ||
    (o.height <= PIECE && whole.some((t) => encloses(inflate(t, 2), o)));
  return {
    elements: elements.length,
    found: elements.filter(isFound).length,
    edged: edged.length,
    edgedFound: edged.filter(isFound).length,
    offered: offered.length,
    right: offered.filter(isRight).length,
  };
}
