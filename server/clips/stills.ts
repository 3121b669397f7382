import { clockOf } from '@/core/clip/clock';
import { pictureAt } from '@/core/clip/cuts';
import type { Stored } from '@/core/contracts/shot';
import { pictureOf } from '../media/pictures';
import { storeShot } from '../shots/store';
import { filmOf, getClip } from './rows';

/** The picture that is seen at a moment, exact as it was recorded, as PNG. @throws Fault 404 */
export async function frameAt(shot: string, at: number, signal?: AbortSignal): Promise<Buffer> {
  const film = await filmOf(shot);
  return pictureOf(film, pictureAt(film.times, at), signal);
}

/** The same as a shot of its own; asked for twice under one id there is one. @throws Fault 404 */
export async function pickStill(shot: string, at: number, id?: string): Promise<Stored> {
  const [{ title, titleOwn, provenance, times }, picture] = await Promise.all([
    getClip(shot),
    frameAt(shot, at),
  ]);
  const { until: _, frames: __, ...from } = provenance;
  const seen = Date.parse(provenance.takenAt) + 1000 * (times[pictureAt(times, at)] ?? 0);
  return storeShot({
    ...{ id, picture, titleMade: !titleOwn },
    title: `${title}, ${clockOf(at)}`.slice(-300),
    provenance: { ...from, takenAt: new Date(seen).toISOString() },
  });
}
