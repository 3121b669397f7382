import { createWriteStream } from 'node:fs';
import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { pipeline } from 'node:stream/promises';
import { randomUUID } from 'node:crypto';
import { ZipFile } from 'yazl';
import { manifestLine } from '@/core/archive/manifest';
import { reportSchema, type Report } from '@/core/contracts/archive';
import { bringIn } from '../archive/bring';
import { handOut } from '../archive/handOut';
import { migrate } from '../db/migrate';
import { closeSql, sql } from '../db/sql';
import { sha256 } from '../frames/intake';

const never = (): AbortSignal => new AbortController().signal;

export const somewhere = async (): Promise<string> =>
  join(await mkdtemp(join(tmpdir(), 'rezzik-archive-')), 'archive.zip');

/** Everything, or what a search matches, in a file. */
export async function archived(query = ''): Promise<string> {
  const path = await somewhere();
  await pipeline(await handOut(query, path, never()), createWriteStream(path));
  return path;
}

/** Written right after the last byte was handed out. */
export async function reportOf(path: string): Promise<Report> {
  for (let tries = 0; tries < 200; tries += 1) {
    const [row] = await sql()<
      { report: unknown }[]
    >`select report from archives where path = ${path}`;
    if (row?.report) return reportSchema.parse(row.report);
    await pause(50);
  }
  throw new Error('There is no report.');
}

export const broughtIn = (path: string): Promise<Report> => bringIn(path, () => undefined, never());

/** Goes on in a database of its own, in which nothing is yet. @returns the name of the one before */
export async function otherDatabase(): Promise<string> {
  const name = `rezzik_${randomUUID().replaceAll('-', '')}`;
  await sql()`create database ${sql()(name)}`;
  const before = await useDatabase(name);
  await migrate();
  return before;
}

/** @returns the name of the one before */
export async function useDatabase(name: string): Promise<string> {
  const url = new URL(process.env.DATABASE_URL ?? '');
  const before = url.pathname.slice(1);
  await closeSql();
  url.pathname = `/${name}`;
  process.env.DATABASE_URL = url.href;
  return before;
}

/** What must be the same after out and in again, by table; the rest is made of it or is of one place alone. */
const TABLES = {
  frames: 'id, sha256, width, height, opaque, bytes, original, original_type',
  shots:
    'id, frame_id, title, title_own, document, revision, step_position, provenance, taken_at, changed_at, binned_at',
  steps: 'shot_id, position, step',
  words: 'shot_id, revision, lines, boxes',
  search: 'shot_id, taken_at, tokens::text, sequence, width, height',
  known_words: 'word, shots',
  tags: 'id, name, folded, colour',
  shot_tags: 'shot_id, tag_id',
  searches: 'id, name, query, order_by, position',
  looks: 'id, name, key, finish, pictures, position',
  folders:
    'id, name, path, format, quality, options, size, max_bytes, facts, pattern, look, number_by, is_default, next_number',
  remotes:
    'id, name, url, username, format, quality, options, size, max_bytes, facts, pattern, look, address',
  routines: 'id, name, key, system_key, way, position',
  guides: 'id, title, guide, made_at, changed_at',
  guide_files: 'id, path, shows, kept_at',
  copies: 'id, shot_id, folder_id, path, format, bytes, sha256, named, confirmed, kept_at',
  sendings: 'id, shot_id, remote_id, name, media_type, size, address',
  pattern_numbers: 'pattern, next_number',
  settings: 'value',
};

/** All of it as text, each row a line. */
export async function everything(): Promise<Record<string, string[]>> {
  const dump: Record<string, string[]> = {};
  for (const [table, columns] of Object.entries(TABLES)) {
    const rows = await sql().unsafe<{ row: string }[]>(
      `select row_to_json(r)::text as row from (select ${columns} from ${table}) r order by 1`,
    );
    dump[table] = rows.map(({ row }) => row);
  }
  return dump;
}

export interface Entry {
  name: string;
  bytes: Buffer;
  /** Not told by the manifest, or told otherwise. */
  told?: Partial<{ bytes: number; sha256: string }> | null;
  mode?: number;
}

/** A zip of these entries, with a manifest that tells of them. */
export async function zipOf(entries: readonly Entry[], manifest = true): Promise<string> {
  const zip = new ZipFile();
  const lines = entries.flatMap(({ name, bytes, told }) =>
    told === null
      ? []
      : [manifestLine({ name, bytes: bytes.length, sha256: sha256(bytes), ...told })],
  );
  const all = manifest
    ? [...entries, { name: 'manifest.jsonl', bytes: Buffer.from(lines.join('')) }]
    : entries;
  for (const { name, bytes, mode } of all as Entry[]) {
    zip.addBuffer(bytes, name, { compress: false, ...(mode ? { mode } : {}) });
  }
  zip.end();
  const path = await somewhere();
  await pipeline(zip.outputStream, createWriteStream(path));
  return path;
}

export const about = (more: object = {}): Entry => ({
  name: 'about.json',
  bytes: Buffer.from(
    JSON.stringify({
      archive: 'Rezzik',
      version: 1,
      document: 4,
      made: '2026-11-20T10:00:00Z',
      query: null,
      ...more,
    }),
  ),
});
