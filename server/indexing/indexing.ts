import type postgres from 'postgres';
import { fold } from '@/core/search/fold';
import { indexOf } from '@/core/search/indexed';
import type { Texts } from '@/core/search/match';
import { hides, markNames } from '@/core/marks/registry';
import type { ShotDocument } from '@/core/document/document';
import type { Provenance } from '@/core/contracts/provenance';
import { sql } from '../db/sql';

interface Row {
  title: string;
  provenance: Partial<Provenance>;
  description: string | null;
  crop: ShotDocument['view']['crop'];
  kinds: string[];
  lines: string | null;
  /** Of a clip's later pictures. */
  later: string | null;
  takenAt: Date;
  tags: string[];
}

const hideKinds: ReadonlySet<string> = new Set(markNames.filter(hides));

/** Where words of a shot stand, beside its picture. */
export const textsOf = (
  row: Pick<Row, 'title' | 'provenance' | 'description' | 'tags'>,
): Texts => ({
  title: row.title,
  tag: row.tags.join('\n'),
  window: [row.provenance.windowTitle, row.provenance.address, row.provenance.part]
    .filter(Boolean)
    .join('\n'),
  program: row.provenance.program ?? '',
  description: row.description ?? '',
});

/**
 * Brings what a shot is found by up to date, in the transaction of whatever changed it. The shot is
 * held meanwhile, so that of two at once the later one sees the other's change.
 */
export async function indexShot(tx: postgres.TransactionSql, id: string): Promise<void> {
  await tx`select 1 from shots where id = ${id} for no key update`;
  const [row] = await tx<Row[]>`
    select s.title, s.provenance, s.document ->> 'description' as description, s.taken_at,
      s.document #> '{view,crop}' as crop, w.lines,
      (select string_agg(l ->> 'lines', E'\\n') from jsonb_array_elements(w.later) l) as later,
      array(select distinct m ->> 'kind' from jsonb_array_elements(s.document -> 'marks') m
        where not coalesce((m ->> 'off')::boolean, false)) as kinds,
      array(select t.name from shot_tags st join tags t on t.id = st.tag_id
        where st.shot_id = s.id order by t.folded) as tags
    from shots s left join words w on w.shot_id = s.id where s.id = ${id}`;
  if (!row) return;
  const hides = row.kinds.some((kind) => hideKinds.has(kind));
  const { tokens, sequence } = indexOf(textsOf(row), `${row.lines ?? ''}\n${row.later ?? ''}`, {
    kinds: hides ? [...row.kinds, 'hidden'] : row.kinds,
    source: row.provenance.source ?? '',
  });
  await tx`
    insert into search as x (shot_id, taken_at, tokens, sequence, width, height)
    values (${id}, ${row.takenAt}, array_to_tsvector(${tokens}), ${sequence}, ${row.crop.width}, ${row.crop.height})
    on conflict (shot_id) do update set tokens = excluded.tokens, sequence = excluded.sequence,
      width = excluded.width, height = excluded.height
    where (x.tokens, x.sequence, x.width, x.height)
      is distinct from (excluded.tokens, excluded.sequence, excluded.width, excluded.height)`;
}

/** Shots indexed in one go, so that others get their turn between. */
const AT_ONCE = 50;

/** Indexes the shots that are not yet: those from before there was a search. */
export async function indexMissing(): Promise<void> {
  for (;;) {
    const rows = await sql()<{ id: string }[]>`
      select s.id from shots s where not exists (select 1 from search x where x.shot_id = s.id)
      order by s.taken_at desc limit ${AT_ONCE}`;
    for (const { id } of rows) await sql().begin((tx) => indexShot(tx, id));
    if (rows.length < AT_ONCE) return;
  }
}

/** As names of tags are compared. */
export const folded = (name: string): string => fold(name).trim().replace(/\s+/g, ' ');
