import type postgres from 'postgres';
import {
  guideRecord,
  listRecords,
  shotRecord,
  type GuideRecord,
  type Lists,
  type ShotRecord,
} from '@/core/archive/records';
import { firstWay } from '@/core/contracts/way';
import { sql } from '../db/sql';

/** To the microsecond, as it is stored: a date of JavaScript's has milliseconds. */
const iso = (column: string) =>
  sql()`to_char(${sql()(column)} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`;

const numbersOf = <T extends { maxBytes: string | null }>({ maxBytes, ...row }: T) => ({
  ...row,
  maxBytes: maxBytes === null ? null : Number(maxBytes),
});

const rules = () => sql()`format, quality, options, size, max_bytes, facts, pattern, look`;

/**
 * What an archive of everything lists. Passwords, tokens of links and the list of programs are not
 * asked for: what is not read here cannot be in it.
 */
export async function readLists(): Promise<Lists> {
  const db = sql();
  const [settings] = await db<{ value: unknown }[]>`select value from settings`;
  const folders = await db<{ maxBytes: string | null }[]>`select id, name, path, ${rules()},
    number_by, is_default, next_number from folders order by created_at, id`;
  const remotes = await db<{ maxBytes: string | null }[]>`select id, name, url, username, address,
    ${rules()} from remotes where not practice order by created_at, id`;
  const routines = await db<{ way: object }[]>`select id, name, key, system_key, way
    from routines order by position, id`;
  const looks = await db<{ pictures: unknown }[]>`select id, name, key, finish, pictures
    from looks order by position, name, id`;
  return {
    settings: listRecords.settings.catch({}).parse(settings?.value ?? {}),
    folders: listRecords.folders.parse(folders.map(numbersOf)),
    remotes: listRecords.remotes.parse(remotes.map(numbersOf)),
    routines: listRecords.routines.parse(
      routines.map((row) => ({ ...row, way: { ...firstWay, ...row.way } })),
    ),
    looks: listRecords.looks.parse(
      looks.map(({ pictures, ...row }) => (pictures ? { ...row, pictures } : row)),
    ),
    tags: await readTags(),
    searches: listRecords.searches.parse(
      await db`select id, name, query, order_by as "order" from searches order by position, id`,
    ),
    numbers: listRecords.numbers.parse(
      await db`select pattern, next_number from pattern_numbers order by pattern`,
    ),
    guideFiles: listRecords.guideFiles.parse(
      await db`select id, path, shows, ${iso('kept_at')} as kept_at from guide_files
        order by guide_files.kept_at, id`,
    ),
  };
}

/** All tags, or those that some shots have. */
export async function readTags(of?: readonly string[]): Promise<Lists['tags']> {
  const which = of
    ? sql()`where id in (select tag_id from shot_tags where shot_id = any(${[...of]}::uuid[]))`
    : sql()``;
  const rows = await sql()`select id, name, colour from tags ${which} order by folded`;
  return listRecords.tags.parse(rows);
}

export async function guideIds(): Promise<string[]> {
  const rows = await sql()<{ id: string }[]>`select id from guides order by made_at, id`;
  return rows.map(({ id }) => id);
}

/** @returns null when it is gone */
export async function readGuide(id: string): Promise<GuideRecord | null> {
  const [row] = await sql()`select id, title, guide, ${iso('made_at')} as made_at,
    ${iso('changed_at')} as changed_at from guides where id = ${id}`;
  return row ? guideRecord.parse(row) : null;
}

/** Ids that follow one, of the shots that were here at a time; a page of them. */
export async function shotIds(after: string, at: Date): Promise<string[]> {
  const rows = await sql()<{ id: string }[]>`select id from shots
    where id > ${after} and created_at <= ${at} order by id limit ${PAGE}`;
  return rows.map(({ id }) => id);
}
const PAGE = 500;

/** What is stored of a shot, and how long its pictures are. */
export interface ShotOut {
  record: ShotRecord;
  length: number;
  originalLength: number;
}

const media = (type: string | null): string | null => type && `image/${type}`;

interface Row extends postgres.Row {
  frameId: string;
  sha256: string;
  width: number;
  height: number;
  originalType: string | null;
  length: number;
  originalLength: number | null;
  wordsRevision: number | null;
  lines: string | null;
  boxes: Buffer | null;
}

/**
 * All that is stored of a shot, of one moment. @returns null when it is gone
 * @param whole with where copies of it were kept and sent
 */
export async function readShot(id: string, whole: boolean): Promise<ShotOut | null> {
  const db = sql();
  const [row] = await db<Row[]>`
    select s.id, s.title, s.title_own, s.revision, s.document, s.step_position as position,
      s.provenance, ${iso('s.taken_at')} as taken_at, ${iso('s.changed_at')} as changed_at,
      ${iso('s.binned_at')} as binned_at, f.id as frame_id, f.sha256, f.width, f.height,
      f.original_type, octet_length(f.bytes) as length,
      octet_length(f.original) as original_length,
      w.revision as words_revision, w.lines, w.boxes,
      coalesce((select jsonb_agg(step order by position) from steps where shot_id = s.id),
        '[]') as steps,
      array(select tag_id from shot_tags where shot_id = s.id order by tag_id) as tags,
      coalesce((select jsonb_agg(jsonb_build_object('id', c.id, 'folder', c.folder_id,
          'path', c.path, 'format', c.format, 'bytes', c.bytes, 'sha256', c.sha256,
          'named', c.named, 'keptAt', ${iso('c.kept_at')}) order by c.kept_at, c.id)
        from copies c where c.shot_id = s.id and c.confirmed and ${whole}), '[]') as copies,
      coalesce((select jsonb_agg(jsonb_build_object('id', x.id, 'remote', x.remote_id,
          'name', x.name, 'mediaType', x.media_type, 'bytes', x.size, 'address', x.address,
          'madeAt', ${iso('j.made_at')}, 'sentAt', ${iso('j.done_at')}) order by j.made_at, x.id)
        from sendings x join jobs j on j.id = x.id join remotes r on r.id = x.remote_id
        where x.shot_id = s.id and j.state = 'done' and not r.practice and ${whole}),
        '[]') as sent
    from shots s join frames f on f.id = s.frame_id left join words w on w.shot_id = s.id
    where s.id = ${id}`;
  if (!row) return null;
  const { frameId, sha256, width, height, originalType, length, originalLength } = row;
  const { wordsRevision: revision, lines, boxes, ...rest } = row;
  const words =
    revision === null ? null : { revision, lines: lines ?? '', boxes: boxes?.toString('base64') };
  const named = ['frameId', 'sha256', 'width', 'height', 'originalType', 'length'];
  const own = Object.fromEntries(
    Object.entries(rest).filter(([key]) => !named.includes(key) && key !== 'originalLength'),
  );
  const frame = { id: frameId, sha256, width, height, original: media(originalType) };
  const record = shotRecord.parse({
    ...own,
    frame,
    words: words && { ...words, boxes: words.boxes ?? '' },
  });
  return { record, length, originalLength: originalLength ?? 0 };
}
