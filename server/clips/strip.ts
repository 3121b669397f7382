import { readFile, stat } from 'node:fs/promises';
import sharp from 'sharp';
import { keptPlaces, STRIP, stripPicture } from '@/core/clip/strip';
import { documentAt } from '@/core/document/atPicture';
import { isTurned } from '@/core/document/turn';
import { bottom, inflate, intersection, right, type Rect } from '@/core/geometry/rect';
import { hides, markBounds } from '@/core/marks/registry';
import { notFound } from '../base/fault';
import { stripPath } from '../media/files';
import { serverShaper } from '../paint/shaper';
import { getClip } from './rows';

/** What covers a place of a small picture. */
const COVER = '#5A544B';
/** A small pixel is made of what is next to it, too. */
const AROUND = 3;
/** JPEG mixes what lies in blocks of so many pixels (ITU-T T.81, A.1 and A.2). */
const blockOf = (sampling: string | undefined): number => (sampling === '4:4:4' ? 8 : 16);

/** Blocks that a part of a small picture reaches into. */
function blocksOf(part: Rect, block: number): Rect {
  const wide = inflate(part, AROUND);
  const [x, y] = [wide.x, wide.y].map((at) => Math.floor(at / block) * block);
  const [toX, toY] = [right(wide), bottom(wide)].map((at) => Math.ceil(at / block) * block);
  return { x: x ?? 0, y: y ?? 0, width: (toX ?? 0) - (x ?? 0), height: (toY ?? 0) - (y ?? 0) };
}

/** @throws Fault 404 until a clip was looked through */
async function isThere(shot: string): Promise<void> {
  const there = await stat(stripPath(shot)).catch(() => null);
  if (!there) throw notFound('strip');
}

/**
 * The small pictures of a clip, what is hidden on them covered; null where nothing is and they are
 * shown as they are.
 * @returns JPEG
 * @throws Fault 404 until there are any
 */
export async function hiddenStrip(shot: string): Promise<Buffer | null> {
  const { document, width, height, times } = await getClip(shot);
  if (!document.marks.some(hides)) return null;
  await isThere(shot);
  const shaper = await serverShaper();
  const strip = sharp(stripPath(shot));
  const { width: all = 0, chromaSubsampling } = await strip.metadata();
  const block = blockOf(chromaSubsampling);
  const cell = Math.round(all / STRIP.pictures);
  const [across, down] = [cell / width, STRIP.height / height];
  const covers = Array.from({ length: STRIP.pictures }, (_, place) => {
    const picture = stripPicture(place, times.length);
    const seen = documentAt(document, picture, { width, height }).marks.filter(hides);
    const left = place * cell;
    // Where the picture is turned, places on it are others.
    if (seen.length > 0 && isTurned(document.view.turn))
      return [{ x: left, y: 0, width: cell, height: STRIP.height }];
    return seen.map((mark) => {
      const { x, y, width: wide, height: high } = markBounds(mark, { shaper });
      const part = {
        ...{ x: left + x * across, y: y * down },
        ...{ width: wide * across, height: high * down },
      };
      return blocksOf(part, block);
    });
  }).flat();
  const whole = { x: 0, y: 0, width: all, height: STRIP.height };
  const laid = covers.flatMap((cover) => {
    const part = intersection(cover, whole);
    if (!part) return [];
    const { x: left, y: top, ...size } = part;
    return [{ input: { create: { ...size, channels: 3 as const, background: COVER } }, left, top }];
  });
  return strip.composite(laid).jpeg({ quality: 80 }).toBuffer();
}

/**
 * Those of the small pictures that are kept, in all twelve places; null where all are.
 * @returns JPEG
 * @throws Fault 404 until there are any, or where none of them is kept
 */
export async function keptStrip(shot: string): Promise<Buffer | null> {
  const { cuts, times } = await getClip(shot);
  if (cuts.away.length === 0) return null;
  const places = keptPlaces(cuts, times.length);
  if (!places) throw notFound('strip');
  await isThere(shot);
  const strip = (await hiddenStrip(shot)) ?? (await readFile(stripPath(shot)));
  const { width: all = 0, height = 0 } = await sharp(strip).metadata();
  const width = Math.round(all / STRIP.pictures);
  const shown = new Map<number, Buffer>();
  for (const place of new Set(places)) {
    const part = sharp(strip).extract({ left: place * width, top: 0, width, height });
    shown.set(place, await part.png().toBuffer());
  }
  const laid = places.map((place, i) => ({ input: shown.get(place), left: i * width, top: 0 }));
  return sharp({ create: { width: all, height, channels: 3, background: COVER } })
    .composite(laid)
    .jpeg({ quality: 80 })
    .toBuffer();
}
