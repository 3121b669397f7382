import type { Size } from '../../geometry/size';
import type { Point } from '../../geometry/point';
import { bottom, contains, right, type Rect } from '../../geometry/rect';
import type { ReadablePixels } from '../../raster/pixels';
import { grownToBorder } from './border';
import { regionsOf, type Region } from './regions';
import { phrasesOf } from './phrases';
import { isSame, SAME } from './same';
import { wholesOf } from './wholes';

/** What is smaller is a letter or an icon, hardly a part. */
const SMALLEST = { width: 12, height: 11 };
/** Up to this size letters of a heading are as large; a part must look more like a box. */
const LETTER = 24;
/** From this size on a part may be covered on some sides by what lies over it. */
const LARGE = { width: 90, height: 60 };
/** What fills less of its box is itself a border. */
const RING = 0.25;

/**
 * The rectangles that the interface on a screen is made of: buttons, fields, menus, panels,
 * windows, found in the pixels alone. Areas of even or gently changing colour are grown; those that
 * fill the sides of their bounding box are parts; borders around them belong to them.
 * @param isLate says when to give what has been found so far, from the top down
 * @returns whole pixels, the largest first
 */
export function findParts(picture: ReadablePixels, isLate = (): boolean => false): Rect[] {
  const found = regionsOf(picture, SMALLEST, isLate)
    .filter((r) => isBox(r, picture))
    .map((r) => {
      const width = r.x1 - r.x0;
      const height = r.y1 - r.y0;
      const box = { x: r.x0, y: r.y0, width, height };
      return r.area < width * height * RING || isLate() ? box : grownToBorder(picture, box);
    });
  const single = distinct(found);
  const wholes = isLate() ? [] : wholesOf(single, phrasesOf(picture, isLate));
  return distinct([...single, ...stacked(single), ...wholes]).filter(
    (r) => r.width < picture.width - SAME || r.height < picture.height - SAME,
  );
}

/** True when an area looks like a rectangle, perhaps with round corners, perhaps partly covered. */
function isBox(r: Region, frame: Size): boolean {
  const width = r.x1 - r.x0;
  const height = r.y1 - r.y0;
  const filled = r.area / (width * height);
  const { top, bottom: low, left, right: far } = r;
  const least = Math.min(top, low, left, far);
  if (width < 60 && height < 60 && filled < 0.5 && least < 0.9) return false;
  if (width < LETTER && height < LETTER * 1.6 && filled < 0.75 && least < 0.9) return false;
  if (width > frame.width * 0.98 && height > frame.height * 0.98) return false;
  const wide = top >= 0.6 && low >= 0.6 && left >= 0.3 && far >= 0.3;
  const tall = left >= 0.6 && far >= 0.6 && top >= 0.3 && low >= 0.3;
  if (wide || tall) return true;
  if (width < LARGE.width || height < LARGE.height) return false;
  const followed = [top, low, left, far].filter((share) => share >= 0.3).length;
  return filled >= 0.3 && followed >= 3 && top + low + left + far >= 2.2;
}

/** The boxes without near repetitions, the largest first: of a border and its inside the border stays. */
function distinct(boxes: readonly Rect[]): Rect[] {
  const kept: Rect[] = [];
  const byPlace = new Map<string, Rect[]>();
  const cell = (v: number) => Math.floor(v / (SAME + 1));
  for (const box of [...boxes].sort((a, b) => b.width * b.height - a.width * a.height)) {
    let repeated = false;
    for (let dx = -1; dx <= 1 && !repeated; dx += 1) {
      for (let dy = -1; dy <= 1 && !repeated; dy += 1) {
        const there = byPlace.get(`${cell(box.x) + dx} ${cell(box.y) + dy}`) ?? [];
        repeated = there.some((other) => isSame(other, box));
      }
    }
    if (repeated) continue;
    kept.push(box);
    const key = `${cell(box.x)} ${cell(box.y)}`;
    byPlace.set(key, [...(byPlace.get(key) ?? []), box]);
  }
  return kept;
}

/** A bar lying right above a larger box of the same width is its title: both together are one more part. */
function stacked(boxes: readonly Rect[]): Rect[] {
  const titles = boxes.filter((r) => r.height >= 16 && r.height <= 64 && r.width >= 100);
  const byTop = new Map<number, Rect[]>();
  for (const box of boxes) byTop.set(box.y, [...(byTop.get(box.y) ?? []), box]);
  return titles.flatMap((title) => {
    const below = [-3, -2, -1, 0, 1, 2, 3].flatMap((by) => byTop.get(bottom(title) + by) ?? []);
    const body = below.find(
      (r) =>
        r.height > title.height * 1.5 &&
        Math.abs(r.x - title.x) <= 3 &&
        Math.abs(right(r) - right(title)) <= 3,
    );
    if (!body) return [];
    const x = Math.min(title.x, body.x);
    const width = Math.max(right(title), right(body)) - x;
    return [{ x, y: title.y, width, height: bottom(body) - title.y }];
  });
}

/** The parts under a place, the innermost first. */
export const partsAt = <P extends Rect>(parts: readonly P[], at: Point): P[] =>
  parts.filter((r) => contains(r, at)).sort((a, b) => a.width * a.height - b.width * b.height);
