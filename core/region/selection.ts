import type { Size } from '../geometry/size';
import { distance, type Point } from '../geometry/point';
import { contains, moveInside, rectFromPoints, type Rect } from '../geometry/rect';
import { alongRatio, gripPoint, grips, pullGrip, type Grip } from '../geometry/resize';

/**
 * Choosing a region on a stilled picture, as a state and what each action makes of it.
 * All rectangles are whole pixels inside the frame.
 */
export interface Selection {
  frame: Size;
  region: Rect | null;
  drag: Drag | null;
}

type Drag =
  | { kind: 'draw'; from: Point; snapped: Point }
  | { kind: 'move'; from: Point; start: Rect }
  | { kind: 'pull'; grip: Grip; start: Rect };

export const nothingChosen = (frame: Size): Selection => ({
  frame,
  region: null,
  drag: null,
});

const whole = (p: Point): Point => ({ x: Math.round(p.x), y: Math.round(p.y) });

const limits = (s: Selection): Rect => ({ x: 0, y: 0, ...s.frame });

/** A region cut to the frame, with at least one pixel. */
function cut(s: Selection, r: Rect): Rect {
  const x = Math.min(Math.max(Math.round(r.x), 0), s.frame.width - 1);
  const y = Math.min(Math.max(Math.round(r.y), 0), s.frame.height - 1);
  const right = Math.min(Math.max(Math.round(r.x + r.width), x + 1), s.frame.width);
  const bottom = Math.min(Math.max(Math.round(r.y + r.height), y + 1), s.frame.height);
  return { x, y, width: right - x, height: bottom - y };
}

/** The grip within `reach` pixels of `at`, corners first. */
export function gripAt(s: Selection, at: Point, reach: number): Grip | null {
  const { region } = s;
  if (!region) return null;
  const corners = grips.filter((g) => g.length === 2);
  const sides = grips.filter((g) => g.length === 1);
  return (
    [...corners, ...sides].find((g) => distance(gripPoint(region, g), at) <= reach) ??
    sides.find((g) => onSide(region, g, at, reach)) ??
    null
  );
}

function onSide(r: Rect, side: Grip, at: Point, reach: number): boolean {
  const p = gripPoint(r, side);
  const along = side === 'n' || side === 's';
  const near = along ? Math.abs(at.y - p.y) : Math.abs(at.x - p.x);
  const within = along
    ? at.x >= r.x && at.x <= r.x + r.width
    : at.y >= r.y && at.y <= r.y + r.height;
  return near <= reach && within;
}

/** Where a place is drawn to: the edges of what is on the picture, or nowhere. */
export type Snap = (at: Point) => Point;
const stay: Snap = (at) => at;

/** How a drag goes on while keys are held. */
export interface Hold {
  /** Keeps the ratio; a square while drawing. */
  ratio?: boolean;
  /** Draws from the middle outwards. */
  centre?: boolean;
  snap?: Snap;
}

/** The pointer goes down: pulls a grip, moves the region, or draws a new one. */
export function press(s: Selection, at: Point, reach: number, snap: Snap = stay): Selection {
  const grip = gripAt(s, at, reach);
  if (s.region && grip) return { ...s, drag: { kind: 'pull', grip, start: s.region } };
  if (s.region && contains(s.region, at)) {
    return { ...s, drag: { kind: 'move', from: at, start: s.region } };
  }
  const from = whole(at);
  return { ...s, drag: { kind: 'draw', from, snapped: whole(snap(at)) } };
}

/** The pointer moves while down. */
export function dragTo(s: Selection, at: Point, hold: Hold = {}): Selection {
  const { drag } = s;
  const { ratio = false, centre = false, snap = stay } = hold;
  if (!drag) return s;
  if (drag.kind === 'move') {
    const moved = {
      ...drag.start,
      x: Math.round(drag.start.x + at.x - drag.from.x),
      y: Math.round(drag.start.y + at.y - drag.from.y),
    };
    return { ...s, region: moveInside(moved, limits(s)) };
  }
  if (drag.kind === 'pull') {
    return { ...s, region: cut(s, pullGrip(drag.start, drag.grip, whole(snap(at)), ratio)) };
  }
  const from = snap === stay || centre ? drag.from : drag.snapped;
  const end = whole(snap(at));
  const to = ratio ? alongRatio(from, end, 1) : end;
  const start = centre ? { x: 2 * from.x - to.x, y: 2 * from.y - to.y } : from;
  const drawn = rectFromPoints(start, to);
  return drawn.width === 0 && drawn.height === 0 ? s : { ...s, region: cut(s, drawn) };
}

export const release = (s: Selection): Selection => ({ ...s, drag: null });

export type Arrow = 'ArrowLeft' | 'ArrowRight' | 'ArrowUp' | 'ArrowDown';
export const isArrow = (key: string): key is Arrow => /^Arrow(Left|Right|Up|Down)$/.test(key);

/** The way an arrow key points, `by` pixels long. */
export const arrowStep = (key: Arrow, by: number): Point => ({
  x: key === 'ArrowLeft' ? -by : key === 'ArrowRight' ? by : 0,
  y: key === 'ArrowUp' ? -by : key === 'ArrowDown' ? by : 0,
});

/**
 * An arrow key: moves the region, or with `resize` moves its right and lower edge. Without a
 * region it makes one, half as large as the frame in its middle, so keys alone are enough.
 */
export function nudge(s: Selection, key: Arrow, by: number, resize: boolean): Selection {
  if (!s.region) return { ...s, region: firstRegion(s) };
  const d = arrowStep(key, by);
  const { region } = s;
  if (!resize)
    return {
      ...s,
      region: moveInside({ ...region, x: region.x + d.x, y: region.y + d.y }, limits(s)),
    };
  return {
    ...s,
    region: cut(s, {
      ...region,
      width: Math.max(1, region.width + d.x),
      height: Math.max(1, region.height + d.y),
    }),
  };
}

function firstRegion(s: Selection): Rect {
  const { width, height } = s.frame;
  return cut(s, { x: width / 4, y: height / 4, width: width / 2, height: height / 2 });
}

/** A typed number; what does not fit into the frame is cut to it. */
export function typeNumber(s: Selection, field: keyof Rect, value: number): Selection {
  if (!Number.isFinite(value)) return s;
  return { ...s, region: cut(s, { ...(s.region ?? firstRegion(s)), [field]: value }) };
}

/** A region of a given size around a place, as far as the frame allows. */
export function ofSize(s: Selection, size: Size, at: Point): Selection {
  const width = Math.min(size.width, s.frame.width);
  const height = Math.min(size.height, s.frame.height);
  const around = {
    x: Math.round(at.x - width / 2),
    y: Math.round(at.y - height / 2),
    width,
    height,
  };
  return { ...s, region: moveInside(around, limits(s)) };
}
