import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import type { Join } from '@/core/contracts/join';
import type { Stored } from '@/core/contracts/shot';
import { joinedLayout, LABEL, type Joined } from '@/core/document/join';
import { untouched } from '@/core/document/view';
import { leavingTitle } from '@/core/keep/leaving';
import { sizeProblem } from '@/core/keep/fitSize';
import { firstStyles, kindOf, markSchema, tidied, type Mark } from '@/core/marks/registry';
import { limits } from '@/core/values/limits';
import type { HeldPicture } from '@/core/values/heldPicture';
import { inEncodingQueue } from '../base/encodingQueue';
import { Fault } from '../base/fault';
import { fromPixels } from '../formats/raw';
import { asItLeaves } from '../keep/asItLeaves';
import { paintedPixels } from '../pictures/painted';
import type { Pixels } from '../paint/flatten';
import { getPaintable } from '../shots/rows';
import { storeShot } from '../shots/store';

/** A shot that is joined, as it leaves. */
interface Shown {
  id: string;
  name: string;
  width: number;
  height: number;
  held: HeldPicture;
}

const KEY = (i: number): string => `part${i}`;
const WORDS = '#15302A';
/** From the corner of a picture to the middle of its number. */
const NUMBER_AT = 26;

/**
 * A new shot: others on one sheet, as they leave, each a piece of its own that knows which shot it
 * shows. @throws Fault 404, 409 too large
 */
export async function joinShots(
  first: string,
  join: Join,
  given: { id?: string | undefined; title?: string | undefined },
): Promise<Stored> {
  const ids = [first, ...join.with];
  const most = Math.min(limits.heldPictureBytes, (limits.heldPicturesText * 0.74) / ids.length);
  const shots: Shown[] = [];
  // One after the other: all their pixels at once may be more than there is room for.
  for (const id of ids) {
    const shot = await asItLeaves(await getPaintable(id));
    const pixels = await paintedPixels(shot);
    const { width, height } = pixels;
    const held = await inEncodingQueue(() => heldOf(pixels, most));
    // What was made from a window's title says where a shot is from.
    shots.push({ id, name: leavingTitle(shot), width, height, held });
  }
  const layout = joinedLayout(shots, join);
  const problem = sizeProblem({ scaled: layout.sheet, sheet: layout.sheet });
  if (problem) throw new Fault(409, 'too-many-pixels', problem);
  const titles = shots.map(({ name }) => name).join(' + ');
  return storeShot({
    id: given.id,
    picture: await blank(layout.sheet, join.background),
    title: given.title?.trim() || titles.slice(0, limits.titleLength),
    titleMade: !given.title?.trim(),
    provenance: { source: 'joined', takenAt: new Date().toISOString() },
    document: {
      ...untouched(layout.sheet),
      pictures: Object.fromEntries(shots.map(({ held }, i) => [KEY(i), held])),
      marks: marksOf(shots, layout, join),
    },
  });
}

const blank = ({ width, height }: { width: number; height: number }, colour: string | null) =>
  sharp({
    create: {
      width,
      height,
      channels: 4,
      background: colour ?? { r: 0, g: 0, b: 0, alpha: 0 },
    },
  })
    .png()
    .toBuffer();

/** A picture as a document holds it: smaller where it would have too many bytes. */
async function heldOf(pixels: Pixels, most: number): Promise<HeldPicture> {
  let { width, height } = pixels;
  for (;;) {
    const image = fromPixels(pixels);
    const sized = width === pixels.width ? image : image.resize(width, height, { fit: 'fill' });
    const png = await sized.png({ compressionLevel: 9 }).toBuffer();
    if (png.length <= most) return { width, height, png: png.toString('base64') };
    const by = Math.min(0.9, Math.sqrt(most / png.length));
    width = Math.max(1, Math.round(width * by));
    height = Math.max(1, Math.round(height * by));
  }
}

function marksOf(shots: readonly Shown[], { places, labels }: Joined, { numbers }: Join): Mark[] {
  const pieces = places.map((place, i) => {
    const { id, name = '', held } = shots[i] ?? {};
    const { width = 1, height = 1 } = held ?? {};
    return markSchema.parse({
      ...{ id: randomUUID(), kind: 'piece', ...place, hotSpot: { x: 0, y: 0 } },
      ...{ picture: KEY(i), size: { width, height }, cut: { x: 0, y: 0, width, height } },
      ...{ name: name.slice(0, 100), shot: id },
    });
  });
  const words = labels.map(({ text, at }, i) =>
    markSchema.parse({
      ...{ id: randomUUID(), kind: 'text', ...at, width: places[i]?.width ?? 100, text },
      ...{ colour: WORDS, textSize: LABEL.size, bold: true, plate: null },
    }),
  );
  const counted = numbers
    ? places.map(({ x, y }) =>
        kindOf('number').create(
          randomUUID(),
          [{ x: x + NUMBER_AT, y: y + NUMBER_AT }],
          firstStyles.number,
        ),
      )
    : [];
  const all = [...pieces, ...words, ...counted];
  return [...(tidied(all) ?? all)];
}
