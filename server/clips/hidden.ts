import type { ShotDocument } from '@/core/document/document';
import { shownChange } from '@/core/document/shownChange';
import type { Size } from '@/core/geometry/size';
import { Fault } from '../base/fault';
import { produce, type Producing } from './produce';
import { getClip } from './rows';
import type { Writing } from './written';

/** So often it is written anew where something is hidden meanwhile. */
const ANEW = 5;

/**
 * What is hidden while a file is written is hidden in the file, too.
 * @param most bytes that it may have; null for as many as it takes
 * @param asShown changes what lies on it for this file
 */
export async function produceHidden(
  producing: Producing,
  writing: Writing,
  most: number | null,
  asShown = (document: ShotDocument): ShotDocument => document,
): Promise<{ size: Size; marksRevision: number }> {
  let { clip } = producing;
  for (let times = 0; times < ANEW; times += 1) {
    const shown = { ...clip, document: asShown(clip.document) };
    const size = await produce({ ...producing, clip: shown }, writing, most);
    const now = await getClip(clip.id);
    if (shownChange(clip.document, now.document) !== 'hidden')
      return { size, marksRevision: clip.marksRevision };
    clip = now;
  }
  throw new Fault(409, 'meanwhile', 'What is hidden on it is still being changed. Keep it then.');
}
