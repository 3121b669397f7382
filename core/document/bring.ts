import { bottom, centre, right, type Rect } from '../geometry/rect';
import type { Point } from '../geometry/point';
import type { Mark } from '../marks/registry';
import type { ShotDocument } from './document';
import { sheetOf } from './view';
import type { Room } from './viewSchema';

/** Where another place of the frame is laid beside a view, and the room that it needs there. */
export interface Brought {
  at: Point;
  room: Room;
}

const none: Room = { top: 0, right: 0, bottom: 0, left: 0, colour: '#FFFFFF' };

/**
 * Lays a part of the frame beside all that a view shows, on the side on which it lies in the frame;
 * what lies within the view comes below it. Its other edge stays in line where it can.
 */
export function besideView(view: ShotDocument['view'], part: Rect): Brought {
  const sheet = sheetOf(view);
  const [c, s] = [centre(part), centre(view.crop)];
  const isAbove = bottom(part) <= view.crop.y || c.y < view.crop.y;
  const isBelow = part.y >= bottom(view.crop) || c.y > bottom(view.crop);
  const isBeside = !isAbove && !isBelow && (c.x < view.crop.x || c.x > right(view.crop));
  const inLine = (from: number, length: number, start: number, room: number) =>
    Math.round(Math.max(start, Math.min(from, start + Math.max(0, room - length))));
  const at = isBeside
    ? {
        x: c.x < s.x ? sheet.x - part.width : right(sheet),
        y: inLine(part.y, part.height, sheet.y, sheet.height),
      }
    : {
        x: inLine(part.x, part.width, sheet.x, sheet.width),
        y: isAbove ? sheet.y - part.height : bottom(sheet),
      };
  const room = view.room ?? none;
  return {
    at,
    room: {
      top: room.top + Math.max(0, sheet.y - at.y),
      left: room.left + Math.max(0, sheet.x - at.x),
      right: room.right + Math.max(0, at.x + part.width - right(sheet)),
      bottom: room.bottom + Math.max(0, at.y + part.height - bottom(sheet)),
      colour: room.colour,
    },
  };
}

/** A rectangle with each edge drawn to the nearest of some others' edges, where one is near enough. */
export function snappedTo(r: Rect, others: readonly Rect[], reach: number): Rect {
  const nearest = (v: number, edges: readonly number[]) =>
    edges.reduce((best, e) => (Math.abs(e - v) < Math.abs(best - v) ? e : best), v + reach + 1);
  const snap = (v: number, edges: readonly number[]) => {
    const edge = nearest(v, edges);
    return Math.abs(edge - v) <= reach ? edge : v;
  };
  const across = others.flatMap((o) => [o.x, right(o)]);
  const down = others.flatMap((o) => [o.y, bottom(o)]);
  const [x, y] = [snap(r.x, across), snap(r.y, down)];
  return {
    x,
    y,
    width: Math.max(1, snap(right(r), across) - x),
    height: Math.max(1, snap(bottom(r), down) - y),
  };
}

/** A piece that no longer knows which place of the frame it shows: that frame is another one now. */
export function unlinked(mark: Mark): Mark {
  if (mark.kind !== 'piece' || !mark.from) return mark;
  const { from: _, ...rest } = mark;
  return rest;
}
