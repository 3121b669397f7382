import type { Disc, Guide, GuideShot } from '@/core/contracts/guide';
import { documentAt } from '@/core/document/atPicture';
import type { ShotDocument } from '@/core/document/document';
import type { Shot } from '@/core/contracts/shot';
import { dropRest } from '@/core/document/dropRest';
import type { Shaper } from '@/core/drawing/shaper';
import { leavingDescription } from '@/core/keep/leaving';
import { loopTurn } from '../base/pieces';
import { listLinks } from '../links/links';
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

/**
 * What a guide shows of it: all that lies on a clip that moves, else what does on the picture that
 * stands for it.
 */
const shownOf = (shot: Shot, { clips }: Guide): ShotDocument =>
  shot.cover === undefined || clips === 'moving'
    ? shot.document
    : documentAt(shot.document, shot.cover, shot);

/** Where its newest link plays it. */
async function linkOf({ id }: Shot): Promise<string | null> {
  const link = (await listLinks(id)).find(({ film, ended }) => film && !ended);
  return link ? (link.openAddress ?? link.address) : null;
}

const toGuideShot = async (shot: Shot, guide: Guide, shaper: Shaper): Promise<GuideShot> => ({
  id: shot.id,
  state: shot.binnedAt ? 'in the bin' : 'there',
  revision: shot.revision,
  name: shot.titleOwn ? shot.title : '',
  description: leavingDescription(shot) ?? '',
  discs: discsOf(shownOf(shot, guide), shaper),
  ...(shot.cover !== undefined && { clip: { cover: shot.cover, link: await linkOf(shot) } }),
});

/** The shots that a guide names, each once, as they are now. */
export async function shotsOf(guide: Guide): Promise<GuideShot[]> {
  const { items } = guide;
  const ids = [...new Set(items.flatMap((item) => (item.kind === 'step' ? [item.shot] : [])))];
  const found = await getShots(ids);
  const shaper = await serverShaper();
  const shots: GuideShot[] = [];
  for (const id of ids) {
    // What a newer Rezzik has marked cannot be painted by this one.
    const shot = found.get(id);
    shots.push(shot ? await toGuideShot(shot, guide, shaper) : gone(id));
    await loopTurn();
  }
  return shots;
}
