import sharp from 'sharp';
import type { z } from 'zod';
import { movingFormats, type Series, type movingQuerySchema } from '@/core/contracts/series';
import { fitScale } from '@/core/geometry/rect';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import { sql } from '../db/sql';
import { fromPixels } from '../formats/raw';
import { asItLeaves } from '../keep/asItLeaves';
import { paintedPixels } from '../pictures/painted';
import { holding } from '../pool/pool';
import { getPaintable } from '../shots/rows';
import { getSeries } from './rows';

type Wish = z.output<typeof movingQuerySchema>;

const NONE = 'There is no picture for that: choose a day on which some were taken.';
const TOO_LARGE =
  'That is too much for one moving picture. Choose one day, or a smaller longest side.';

async function shotsOf({ id }: Series, { day }: Wish): Promise<string[]> {
  const rows = await sql()<{ id: string }[]>`
    select h.id from series_times t join shots h on h.id = t.shot_id
    where t.series_id = ${id} and t.outcome = 'taken' and h.binned_at is null
      and (${day ?? null}::date is null or t.day = ${day ?? null})
    order by t.at limit ${limits.movingPictures + 1}`;
  return rows.map((row) => row.id);
}

interface Size {
  width: number;
  height: number;
}

/** A picture as it leaves, of the size that all have: what is of another shape gets room around it. */
async function frame(id: string, size: Size): Promise<Buffer> {
  const pixels = await paintedPixels(await asItLeaves(await getPaintable(id)));
  return fromPixels(pixels)
    .resize({ ...size, fit: 'contain', background: '#FFFFFF' })
    .flatten({ background: '#FFFFFF' })
    .png({ compressionLevel: 1 })
    .toBuffer();
}

async function sizeOf(id: string, longest: number): Promise<Size> {
  const { width, height } = await paintedPixels(await asItLeaves(await getPaintable(id)));
  const scale = fitScale({ width, height }, { width: longest, height: longest }, 1);
  const scaled = (side: number) => Math.max(1, Math.round(side * scale));
  return { width: scaled(width), height: scaled(height) };
}

/** The pictures of a series one after the other, as they leave. @throws Fault 404, 413 */
export async function movingPicture(
  id: string,
  wish: Wish,
  signal: AbortSignal,
): Promise<{ bytes: Uint8Array; name: string; mediaType: string }> {
  const series = await getSeries(id);
  const shots = await shotsOf(series, wish);
  const [first] = shots;
  if (first === undefined) throw new Fault(404, 'no-pictures', NONE);
  const size = await sizeOf(first, wish.longest);
  const area = size.width * size.height * shots.length;
  if (shots.length > limits.movingPictures || area > limits.pixels)
    throw new Fault(413, 'too-large', TOO_LARGE);
  const frames: Buffer[] = [];
  for (const shot of shots) {
    signal.throwIfAborted();
    frames.push(await frame(shot, size));
  }
  const how = { delay: frames.map(() => Math.round(wish.seconds * 1000)), loop: 0 };
  const joined = sharp(frames, { join: { animated: true }, limitInputPixels: false });
  const file = wish.format === 'gif' ? joined.gif(how) : joined.webp({ ...how, lossless: true });
  const bytes = await holding(area, () => file.toBuffer());
  const name = `${series.name}${wish.day ? ` ${wish.day}` : ''}.${wish.format}`;
  return { bytes, name, mediaType: movingFormats[wish.format] };
}
