import pLimit from 'p-limit';
import type { ResizeOptions } from 'sharp';
import { isLong, type Size } from '@/core/geometry/size';
import { withCaption } from '@/core/keep/caption';
import { sheetOf } from '@/core/document/view';
import { wholeSize } from '@/core/paint/whole';
import { heldArea } from '@/core/document/heldPictures';
import { sql } from '../db/sql';
import { timeZone } from '../base/timeZone';
import { serverShaper } from '../paint/shaper';
import { fromPixels } from '../formats/raw';
import { getPaintable, type Paintable } from '../shots/rows';
import { run } from '../pool/pool';
import { unpainted, type Pixels } from '../paint/flatten';

/** The shots painted last, so that trying qualities does not paint again. */
const kept: { key: string; pixels: Promise<Pixels> }[] = [];
const KEPT = 2;
const MOST_KEPT_PIXELS = 34_000_000;

/** Pixels held while a shot is painted: the frame, the view that is cut out of it, what lies on it. */
function areaOf({ document, width, height }: Paintable): number {
  const crop = sheetOf(document.view);
  return width * height + crop.width * crop.height + heldArea(document.pictures);
}

/** Paints a shot in a thread, into memory that all threads see. */
export async function paint(shot: Paintable): Promise<Pixels> {
  const { frame, opaque, document } = shot;
  const { width, height } = wholeSize(document, await serverShaper());
  const around = document.finish?.surround ? 2 * width * height : 0;
  return run('flatten', { frame, opaque, document }, { pixels: areaOf(shot) + around });
}

/** A shot painted as it leaves. */
export function paintedPixels(shot: Paintable): Promise<Pixels> {
  // To different places it leaves with different looks, its caption says different things, in a guide
  // its numbers run on, and compared it may be without its marks.
  const { finish = null, marks } = shot.document;
  const first = marks.find((mark) => mark.kind === 'number')?.value;
  const key = `${shot.id} ${shot.revision} ${shot.cover ?? ''} ${marks.length} ${first ?? ''} ${JSON.stringify(finish)}`;
  const before = kept.find((entry) => entry.key === key);
  if (before) return before.pixels;
  const pixels = paint(shot);
  const { width, height } = sheetOf(shot.document.view);
  if (width * height <= MOST_KEPT_PIXELS) {
    const entry = { key, pixels };
    kept.unshift(entry);
    kept.length = Math.min(kept.length, KEPT);
    // What could not be painted now may be painted the next time.
    pixels.catch(() => kept.includes(entry) && kept.splice(kept.indexOf(entry), 1));
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
    join shots s on s.id = t.shot_id and s.revision = t.revision
    left join clips c on c.shot_id = s.id
    where s.id = ${id} and t.cover = coalesce(c.cover, 0)`;
  return row?.bytes ?? inTurn(() => makeThumbnail(id));
}

/** Here everything may be told. */
const captioned = (shot: Paintable): Paintable => ({
  ...shot,
  document: withCaption(shot, true, timeZone()),
});

/** Small as a whole; of a long page its beginning, as the whole of it would be a thread. */
function thumbnailOf(size: Size): ResizeOptions {
  if (!isLong(size)) return { ...THUMBNAIL, fit: 'inside', withoutEnlargement: true };
  const width = Math.min(THUMBNAIL.width, size.width);
  const height = Math.min(size.height, Math.round((width * THUMBNAIL.height) / THUMBNAIL.width));
  return { width, height, fit: 'cover', position: 'top' };
}

async function makeThumbnail(id: string): Promise<Uint8Array> {
  const paintable = await getPaintable(id);
  const shown = captioned(paintable);
  const image = unpainted(paintable) ?? fromPixels(await paint(shown));
  const bytes = await image
    .resize(thumbnailOf(wholeSize(shown.document, await serverShaper())))
    .webp({ quality: 80 })
    .toBuffer();
  const { revision, cover = 0 } = paintable;
  await sql()`insert into thumbnails (shot_id, revision, cover, bytes)
    select id, ${revision}, ${cover}, ${bytes} from shots where id = ${id}
    on conflict (shot_id) do update set
      revision = excluded.revision, cover = excluded.cover, bytes = excluded.bytes`;
  return bytes;
}
