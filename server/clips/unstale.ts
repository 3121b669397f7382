import type { Clip } from '@/core/contracts/clip';
import { Fault } from '../base/fault';
import { madeFile, type MadeFile } from './copies';
import { getClip } from './rows';

/**
 * A file that was written of a clip, where what lies on the clip is the same still: something may
 * be hidden by now that the file shows.
 * @throws Fault 404, 409 where it is not written yet, or stale
 */
export async function unstaleFile(
  shot: string,
  job: string,
): Promise<{ clip: Clip; file: MadeFile }> {
  const file = await madeFile(shot, job);
  const clip = await getClip(shot);
  if (clip.marksRevision !== file.marksRevision) {
    const words = 'What lies on the clip was changed since it was written. Write it once more.';
    throw new Fault(409, 'stale', words);
  }
  return { clip, file };
}
