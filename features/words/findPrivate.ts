import { sheetOf } from '@/core/document/view';
import type { ShotDocument } from '@/core/document/document';
import { withFinish } from '@/core/finish/finish';
import { merged, privateThings, type PrivateThing } from '@/core/recognition/privateThings';
import { decodeFrame, paintPng } from '../pictures/pictures';
import type { Recogniser } from './recogniser';

/** Small words are read better enlarged, large ones as they are. */
const SCALES = [1, 2] as const;

/**
 * What looks private in a shot as it leaves: what is hidden already is not found again.
 * Boxes are in the coordinates of the shot's marks.
 */
export async function findPrivate(
  recogniser: Recogniser,
  frame: ImageBitmap,
  document: ShotDocument,
  onProgress: (share: number) => void,
): Promise<PrivateThing[]> {
  const bare = { ...document, finish: withFinish(document.finish, { surround: undefined }) };
  const picture = await decodeFrame(await paintPng(frame, bare));
  const sheet = sheetOf(document.view);
  const passes: PrivateThing[][] = [];
  for (const [i, scale] of SCALES.entries()) {
    const paragraphs = await recogniser.read(picture, scale, 'anywhere', (share) =>
      onProgress((i + share) / SCALES.length),
    );
    passes.push(privateThings(paragraphs.flat()));
  }
  picture.close();
  return merged(passes).map(({ box, ...thing }) => ({
    ...thing,
    box: { ...box, x: box.x + sheet.x, y: box.y + sheet.y },
  }));
}
