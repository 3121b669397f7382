import { provenanceSchema } from '@/core/contracts/provenance';
import { type Disc, type Guide, type GuideShot } from '@/core/contracts/guide';
import { documentSchema, type ShotDocument } from '@/core/document/document';
import { dropRest } from '@/core/document/dropRest';
import { isNewer } from '@/core/document/upgrade/upgrade';
import type { Shaper } from '@/core/drawing/shaper';
import { leavingDescription } from '@/core/keep/leaving';
import { loopTurn } from '../base/pieces';
import { sql } from '../db/sql';
import { serverShaper } from '../paint/shaper';

interface Row {
  id: string;
  title: string;
  titleOwn: boolean;
  revision: number;
  document: unknown;
  provenance: unknown;
  binned: boolean;
}

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

function toGuideShot({ document: stored, provenance, ...row }: Row, shaper: Shaper): GuideShot {
  // What a newer Rezzik has marked cannot be painted by this one.
  if (isNewer(stored)) return gone(row.id);
  const document = documentSchema.parse(stored);
  const shot = { ...row, document, provenance: provenanceSchema.parse(provenance) };
  return {
    id: row.id,
    state: row.binned ? 'in the bin' : 'there',
    revision: row.revision,
    name: row.titleOwn ? row.title : '',
    description: leavingDescription(shot) ?? '',
    discs: discsOf(document, shaper),
  };
}

/** The shots that a guide names, each once, as they are now. */
export async function shotsOf({ items }: Guide): Promise<GuideShot[]> {
  const ids = [...new Set(items.flatMap((item) => (item.kind === 'step' ? [item.shot] : [])))];
  if (ids.length === 0) return [];
  const rows = await sql()<Row[]>`select id, title, title_own, revision, document, provenance,
    binned_at is not null as binned from shots where id = any(${ids}::uuid[])`;
  const found = new Map(rows.map((row) => [row.id, row]));
  const shaper = await serverShaper();
  const shots: GuideShot[] = [];
  for (const id of ids) {
    const row = found.get(id);
    shots.push(row ? toGuideShot(row, shaper) : gone(id));
    await loopTurn();
  }
  return shots;
}
