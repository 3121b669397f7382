import type { Disc, Guide, GuideShot } from '@/core/contracts/guide';
import { documentAt } from '@/core/document/atPicture';
import type { ShotDocument } from '@/core/document/document';
import type { Shot } from '@/core/contracts/shot';
import { dropRest } from '@/core/document/dropRest';
import type { Shaper } from '@/core/drawing/shaper';
import { leavingDescription } from '@/core/keep/leaving';
import { loopTurn } from '../base/pieces';
import { serverShaper } from '../paint/shaper';
import { getShots } from '../shots/rows';

/** The numbers of a picture; a caption that cannot be seen in it says nothing. */
function discsOf(document: ShotDocument, shaper: Shaper): Disc[] {
  const numbers = document.marks.flatMap((mark) => (mark.kind === 'number' ? [mark] : []));
  if (numbers.length === 0) return [];
  const seen = new Set(dropRest(document, { shaper }).document.marks.map(({ id }) => id));
  return numbers.map(({ id, off, counting, caption }) => ({
    counting,
    caption: seen.has(id) && !off ? caption : '',
  }));
}

const gone = (id: string): GuideShot => ({
  ...{ id, state: 'gone', revision: 0, name: '', description: '', discs: [] },
});

const toGuideShot = (shot: Shot, shaper: Shaper): GuideShot => ({
  id: shot.id,
  state: shot.binnedAt ? 'in the bin' : 'there',
  revision: shot.revision,
  name: shot.titleOwn ? shot.title : '',
  description: leavingDescription(shot) ?? '',
  discs: discsOf(shot.clip ? documentAt(shot.document, 0) : shot.document, shaper),
});

/** The shots that a guide names, each once, as they are now. */
export async function shotsOf({ items }: Guide): Promise<GuideShot[]> {
  const ids = [...new Set(items.flatMap((item) => (item.kind === 'step' ? [item.shot] : [])))];
  const found = await getShots(ids);
  const shaper = await serverShaper();
  const shots: GuideShot[] = [];
  for (const id of ids) {
    // What a newer Rezzik has marked cannot be painted by this one.
    const shot = found.get(id);
    shots.push(shot ? toGuideShot(shot, shaper) : gone(id));
    await loopTurn();
  }
  return shots;
}
