import { clockOf } from '@/core/clip/clock';
import { pictureAt } from '@/core/clip/cuts';
import type { Stored } from '@/core/contracts/shot';
import { documentAt, stillAt } from '@/core/document/atPicture';
import { fromPixels } from '../formats/raw';
import { pictureOf } from '../media/pictures';
import { run } from '../pool/pool';
import { storeShot } from '../shots/store';
import { filmOf, getClip } from './rows';

/** The picture that is seen at a moment, exact as it was recorded, as PNG. @throws Fault 404 */
export async function frameAt(shot: string, at: number, signal?: AbortSignal): Promise<Buffer> {
  const film = await filmOf(shot);
  return pictureOf(film, pictureAt(film.times, at), signal);
}

/** The same with what lies on it, as it leaves, as PNG. @throws Fault 404 */
export async function markedFrameAt(shot: string, at: number): Promise<Buffer> {
  const [{ document }, film, frame] = await Promise.all([
    getClip(shot),
    filmOf(shot),
    frameAt(shot, at),
  ]);
  const { width, height } = film;
  const painted = await run(
    'flatten',
    { frame, opaque: true, document: documentAt(document, pictureAt(film.times, at), film) },
    { pixels: width * height },
  );
  return fromPixels(painted).png({ compressionLevel: 3 }).toBuffer();
}

/** The same as a shot of its own; asked for twice under one id there is one. @throws Fault 404 */
export async function pickStill(shot: string, at: number, id?: string): Promise<Stored> {
  const [{ title, titleOwn, provenance, times, document, width, height }, picture] =
    await Promise.all([getClip(shot), frameAt(shot, at)]);
  const { until: _, frames: __, ...from } = provenance;
  const number = pictureAt(times, at);
  const seen = Date.parse(provenance.takenAt) + 1000 * (times[number] ?? 0);
  return storeShot({
    ...{
      id,
      picture,
      titleMade: !titleOwn,
      document: stillAt(document, number, { width, height }),
    },
    title: `${title}, ${clockOf(at)}`.slice(-300),
    provenance: { ...from, takenAt: new Date(seen).toISOString() },
  });
}
