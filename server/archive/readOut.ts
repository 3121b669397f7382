import type postgres from 'postgres';
import type { z } from 'zod';
import { LISTS } from '@/core/archive/entries';
import {
  folderRecord,
  guideFileRecord,
  guideRecord,
  lookRecord,
  numberRecord,
  remoteRecord,
  routineRecord,
  searchRecord,
  settingsRecord,
  shotRecord,
  soundRecords,
  tagRecord,
  type GuideRecord,
  type ShotRecord,
} from '@/core/archive/records';
import { filmSum } from '../clips/rows';
import { sql } from '../db/sql';
import { filmPath } from '../media/files';
import type { Reporting } from './reporting';

/** To the microsecond, as it is stored: a date of JavaScript's has milliseconds. */
const iso = (column: string) =>
  sql()`to_char(${sql()(column)} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`;

const numbersOf = <T extends { maxBytes: string | null }>({ maxBytes, ...row }: T) => ({
  ...row,
  maxBytes: maxBytes === null ? null : Number(maxBytes),
});

const rules = () => sql()`format, quality, options, size, max_bytes, facts, pattern, look`;

const tags = (which = sql()``) => sql()`select id, name, colour from tags ${which} order by folded`;

interface List {
  entry: string;
  record: z.ZodType;
  rows: () => PromiseLike<object[]>;
}

/** What is asked for of each list. */
const lists: readonly List[] = [
  {
    entry: LISTS.folders,
    record: folderRecord,
    rows: async () =>
      (
        await sql()<{ maxBytes: string | null }[]>`select id, name, path, ${rules()}, number_by,
          is_default, next_number from folders order by created_at, id`
      ).map(numbersOf),
  },
  {
    entry: LISTS.remotes,
    record: remoteRecord,
    rows: async () =>
      (
        await sql()<{ maxBytes: string | null }[]>`select id, name, url, username, address,
          ${rules()} from remotes where not practice order by created_at, id`
      ).map(numbersOf),
  },
  {
    entry: LISTS.routines,
    record: routineRecord,
    rows: () => sql()`select id, name, key, system_key, way from routines order by position, id`,
  },
  {
    entry: LISTS.looks,
    record: lookRecord,
    rows: async () =>
      (
        await sql()<{ pictures: unknown }[]>`select id, name, key, finish, pictures
          from looks order by position, name, id`
      ).map(({ pictures, ...row }) => (pictures ? { ...row, pictures } : row)),
  },
  { entry: LISTS.tags, record: tagRecord, rows: () => tags() },
  {
    entry: LISTS.searches,
    record: searchRecord,
    rows: () =>
      sql()`select id, name, query, order_by as "order" from searches order by position, id`,
  },
  {
    entry: LISTS.numbers,
    record: numberRecord,
    rows: () => sql()`select pattern, next_number from pattern_numbers order by pattern`,
  },
  {
    entry: LISTS.guideFiles,
    record: guideFileRecord,
    rows: () => sql()`select id, path, shows, ${iso('kept_at')} as kept_at from guide_files
      order by guide_files.kept_at, id`,
  },
];

/** What is odd among what is stored is told, and keeps nothing else out of the archive. */
function soundOf(
  entry: string,
  schema: z.ZodType,
  rows: object[],
  reporting: Reporting,
): unknown[] {
  const { sound, odd } = soundRecords(schema, rows);
  odd.forEach((why) => reporting.damaged(entry, why));
  return sound;
}

/**
 * What an archive of everything lists, by its entries. Passwords, tokens of links and the list of
 * programs are not asked for: what is not read here cannot be in it.
 */
export async function* readLists(reporting: Reporting): AsyncGenerator<[string, unknown]> {
  const [settings] = await sql()<{ value: unknown }[]>`select value from settings`;
  yield [LISTS.settings, settingsRecord.catch({}).parse(settings?.value ?? {})];
  for (const { entry, record, rows } of lists) {
    yield [entry, soundOf(entry, record, await rows(), reporting)];
  }
}

/** The tags that some shots have. */
export async function readTagsOf(
  shots: readonly string[],
  reporting: Reporting,
): Promise<unknown[]> {
  const which = sql()`where id in
    (select tag_id from shot_tags where shot_id = any(${[...shots]}::uuid[]))`;
  return soundOf(LISTS.tags, tagRecord, await tags(which), reporting);
}

export async function guideIds(): Promise<string[]> {
  const rows = await sql()<{ id: string }[]>`select id from guides order by made_at, id`;
  return rows.map(({ id }) => id);
}

/** @returns null when it is gone @throws ZodError for what cannot be said in an archive */
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
  /** Where the film of a clip lies. */
  film: string | null;
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
  file: string | null;
  clip: object | null;
}

/**
 * All that is stored of a shot, of one moment. @returns null when it is gone
 * @throws ZodError for what cannot be said in an archive
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
        '[]') as sent, k.file,
      case when k.shot_id is not null then jsonb_build_object('type', k.type, 'bytes', k.bytes,
        'step', k.step, 'steps', coalesce((select jsonb_agg(cuts order by position)
          from clip_steps where shot_id = s.id), '[]')) end as clip
    from shots s join frames f on f.id = s.frame_id left join words w on w.shot_id = s.id
      left join clips k on k.shot_id = s.id
    where s.id = ${id}`;
  if (!row) return null;
  const { frameId, sha256, width, height, originalType, length, originalLength, ...more } = row;
  const { wordsRevision: revision, lines, boxes, file, clip, ...own } = more;
  // What is not there has none.
  const sum = clip && (await filmSum(id).catch(() => null));
  const record = shotRecord.parse({
    ...own,
    ...(clip && sum && { clip: { ...clip, sha256: sum } }),
    frame: { id: frameId, sha256, width, height, original: media(originalType) },
    words:
      revision === null
        ? null
        : {
            revision,
            lines: lines ?? '',
            boxes: boxes?.toString('base64') ?? '',
          },
  });
  const film = file && filmPath(file);
  return { record, length, originalLength: originalLength ?? 0, film };
}
