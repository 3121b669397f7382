import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import {
  guideSchema,
  guideSummarySchema,
  type guideInputSchema,
  type GuidePatch,
  type GuideStep,
  type GuideSummary,
  type StoredGuide,
} from '@/core/contracts/guide';
import { limits } from '@/core/values/limits';
import { json, sql } from '../db/sql';
import { Fault, notFound } from '../base/fault';
import { shotsOf } from './shots';

interface Row {
  id: string;
  title: string;
  revision: number;
  guide: unknown;
  changedAt: Date;
  hasLook: boolean;
}

/** All guides, the last changed first. */
export async function listGuides(): Promise<GuideSummary[]> {
  const rows = await sql()<(Omit<GuideSummary, 'changedAt'> & { changedAt: Date })[]>`
    select g.id, g.title, g.changed_at, count(item) filter (where item->>'kind' = 'step')::int as steps,
      (select jsonb_build_object('id', s.id, 'revision', s.revision,
          'cover', coalesce((select c.cover from clips c where c.shot_id = s.id), 0))
        from jsonb_array_elements(g.guide->'items') with ordinality as step (item, place)
        join shots s on s.id = (step.item->>'shot')::uuid
        where s.binned_at is null order by place limit 1) as cover
    from guides g left join lateral jsonb_array_elements(g.guide->'items') as all_items (item) on true
    group by g.id order by g.changed_at desc, g.id`;
  return rows.map(({ changedAt, ...row }) =>
    guideSummarySchema.parse({ ...row, changedAt: changedAt.toISOString() }),
  );
}

/** A guide with what it knows of its shots. @throws Fault 404 */
export async function getGuide(id: string): Promise<StoredGuide> {
  const [row] = await sql()<Row[]>`
    select id, title, revision, guide, changed_at,
      exists (select 1 from looks l where l.id = (guide->>'look')::uuid) as has_look
    from guides where id = ${id}`;
  if (!row) throw notFound('guide');
  const { hasLook, changedAt, ...rest } = row;
  const stored = guideSchema.parse(row.guide);
  // A look that was removed is none, whoever had it.
  const guide = hasLook ? stored : { ...stored, look: null };
  return { ...rest, guide, changedAt: changedAt.toISOString(), shots: await shotsOf(guide) };
}

/** A new guide of these shots in their order. @throws Fault 404 for one that is not there, 409 */
export async function addGuide(input: z.output<typeof guideInputSchema>): Promise<StoredGuide> {
  const guide = guideSchema.parse({ version: 1, items: await stepsOf(input.shots) });
  const id = randomUUID();
  const added = await sql()`insert into guides (id, title, guide)
    select ${id}, ${input.title ?? 'Guide'}, ${json(guide)}
    where (select count(*) from guides) < ${limits.guides}`;
  if (added.count === 0) {
    throw new Fault(409, 'too-many', `There can be ${limits.guides} guides at most.`);
  }
  return getGuide(id);
}

/** A step for each shot. */
async function stepsOf(ids: readonly string[]): Promise<GuideStep[]> {
  const rows = await sql()<{ id: string }[]>`
    select id from shots where id = any(${ids}::uuid[]) and binned_at is null`;
  const found = new Set(rows.map(({ id }) => id));
  return ids.map((shot) => {
    if (!found.has(shot)) throw notFound('shot');
    return { kind: 'step', id: randomUUID(), shot, heading: '', caption: '' };
  });
}

/** Stores a changed guide, if nobody changed it since. @throws Fault 404, 409 with the current one */
export async function changeGuide(id: string, patch: GuidePatch): Promise<StoredGuide> {
  const changed = await sql()`update guides set revision = revision + 1, changed_at = now(),
      title = coalesce(${patch.title ?? null}, title),
      guide = coalesce(${patch.guide ? json(patch.guide) : null}, guide)
    where id = ${id} and revision = ${patch.revision}`;
  const current = await getGuide(id);
  if (changed.count > 0) return current;
  throw new Fault(409, 'stale', 'This guide was changed elsewhere since it was read.', { current });
}

/** Its shots stay; links to it end. @throws Fault 404 */
export async function removeGuide(id: string): Promise<void> {
  const gone = await sql()`delete from guides where id = ${id}`;
  if (gone.count === 0) throw notFound('guide');
}
