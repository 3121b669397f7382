import pLimit from 'p-limit';
import { sql } from '../db/sql';
import { fromPixels } from '../keep/formats/raw';
import { getPaintable } from '../shots/rows';
import { flatten, type Pixels } from './flatten';
import { serverShaper } from './shaper';

/** The shots painted last, so that trying qualities does not paint again. */
const kept: { key: string; pixels: Promise<Pixels> }[] = [];
const KEPT = 2;
const MOST_KEPT_PIXELS = 34_000_000;

/** A shot painted as it leaves, at its current revision. @throws Fault 404 */
export async function paintedPixels(id: string): Promise<Pixels> {
  const paintable = await getPaintable(id);
  const key = `${id} ${paintable.revision}`;
  const before = kept.find((entry) => entry.key === key);
  if (before) return before.pixels;
  const pixels = serverShaper().then((shaper) => flatten(paintable, shaper));
  const { width, height } = paintable.document.view.crop;
  if (width * height <= MOST_KEPT_PIXELS) {
    kept.unshift({ key, pixels });
    kept.length = Math.min(kept.length, KEPT);
  }
  return pixels;
}

/** What was painted of a shot is let go. */
export function forgetPainted(id: string): void {
  const rest = kept.filter((entry) => !entry.key.startsWith(`${id} `));
  kept.splice(0, kept.length, ...rest);
}

/** Longest sides of a thumbnail, in pixels. */
const THUMBNAIL = { width: 480, height: 320 };

/** Few at a time, and apart from copies: neither a shelf that asks for forty nor keeping many
 * holds the other up. */
const inTurn = pLimit(2);

/** The thumbnail of a shot at its current revision, made when it is first asked for. @throws Fault 404 */
export async function thumbnail(id: string): Promise<Uint8Array> {
  const [row] = await sql()<{ bytes: Buffer }[]>`select t.bytes from thumbnails t
    join shots s on s.id = t.shot_id and s.revision = t.revision where s.id = ${id}`;
  return row?.bytes ?? inTurn(() => makeThumbnail(id));
}

async function makeThumbnail(id: string): Promise<Uint8Array> {
  const paintable = await getPaintable(id);
  const pixels = await flatten(paintable, await serverShaper());
  const bytes = await fromPixels(pixels)
    .resize({ ...THUMBNAIL, fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 80 })
    .toBuffer();
  await sql()`insert into thumbnails (shot_id, revision, bytes)
    select id, ${paintable.revision}, ${bytes} from shots where id = ${id}
    on conflict (shot_id) do update set revision = excluded.revision, bytes = excluded.bytes`;
  return bytes;
}
