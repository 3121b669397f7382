import { right, bottom, type Rect } from '../geometry/rect';
import type { Size } from '../geometry/size';
import type { Point } from '../geometry/point';

/** Where pictures lie that are put together on one sheet. */
export interface Joined {
  sheet: Size;
  places: Rect[];
  /** Words above some of them, and where they begin. */
  labels: { text: string; at: Point }[];
}

interface How {
  how: 'stacked' | 'side by side' | 'grid' | 'before after';
  equal: boolean;
  gap: number;
}

/** Height of the words “Before” and “After”, and the room they take, pixels. */
export const LABEL = { size: 22, room: 40 } as const;

/** All in one measure of the smallest; whole pixels, in proportion. */
function alike(sizes: readonly Size[], side: 'width' | 'height'): Size[] {
  const least = Math.min(...sizes.map((size) => size[side]));
  return sizes.map(({ width, height }) =>
    side === 'width'
      ? { width: least, height: Math.max(1, Math.round((height * least) / width)) }
      : { width: Math.max(1, Math.round((width * least) / height)), height: least },
  );
}

/** Puts pictures of some sizes together, in their order. */
export function joinedLayout(sizes: readonly Size[], { how, equal, gap }: How): Joined {
  const isRow = how === 'side by side' || how === 'before after';
  const given = equal
    ? alike(sizes, isRow ? 'height' : 'width')
    : sizes.map(({ width, height }) => ({ width, height }));
  const top = gap + (how === 'before after' ? LABEL.room : 0);
  const columns = isRow ? given.length : how === 'stacked' ? 1 : Math.ceil(Math.sqrt(given.length));
  const widths = Array.from({ length: columns }, (_, c) =>
    Math.max(...given.filter((_size, i) => i % columns === c).map(({ width }) => width)),
  );
  const heights = Array.from({ length: Math.ceil(given.length / columns) }, (_, r) =>
    Math.max(...given.slice(r * columns, (r + 1) * columns).map(({ height }) => height)),
  );
  const start = (lengths: readonly number[], before: number, first: number) =>
    lengths.slice(0, before).reduce((sum, length) => sum + length + gap, first);
  const places = given.map((size, i) => ({
    ...size,
    x: start(widths, i % columns, gap),
    y: start(heights, Math.floor(i / columns), top),
  }));
  const labels =
    how === 'before after'
      ? places.map(({ x }, i) => ({ text: i === 0 ? 'Before' : 'After', at: { x, y: gap } }))
      : [];
  return {
    places,
    labels,
    sheet: {
      width: Math.max(...places.map(right)) + gap,
      height: Math.max(...places.map(bottom)) + gap,
    },
  };
}
