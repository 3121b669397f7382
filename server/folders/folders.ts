import { randomUUID } from 'node:crypto';
import type postgres from 'postgres';
import type { z } from 'zod';
import {
  folderInputSchema,
  folderSchema,
  type Folder,
  type folderPatchSchema,
  type FolderInput,
} from '@/core/contracts/folder';
import { json, sql } from '../db/sql';
import { fit } from '../http/body';
import { Fault, notFound } from '../base/fault';
import { formats } from '../formats';
import { optionsOf } from '../formats/contract';
import { checkPlace } from './checkPlace';
import { freeBytes, placeProblem } from './place';

interface Row {
  id: string;
  name: string;
  path: string;
  format: string;
  quality: number;
  options: unknown;
  size: unknown;
  maxBytes: string | null;
  facts: unknown;
  pattern: string;
  look: string | null;
  numberBy: string;
  isDefault: boolean;
  nextNumber: number;
  unconfirmed: boolean;
}

/** Folders with the number that comes next in them or for their pattern. */
const select = () => sql()`select f.*, case when f.number_by = 'folder' then f.next_number
  else coalesce((select p.next_number from pattern_numbers p where p.pattern = f.pattern), 1)
  end as next_number from folders f`;

const UNCONFIRMED = new Fault(
  409,
  'unconfirmed',
  'This folder came in with an archive. Nothing is kept there before it is confirmed in Setup › Folders.',
);

async function toFolder(row: Row): Promise<Folder> {
  const problem = row.unconfirmed ? UNCONFIRMED : await placeProblem(row.path);
  return folderSchema.parse({
    ...row,
    maxBytes: row.maxBytes === null ? null : Number(row.maxBytes),
    free: problem ? null : await freeBytes(row.path),
    problem: problem?.message ?? null,
  });
}

export async function listFolders(): Promise<Folder[]> {
  const rows = await sql()<Row[]>`${select()} order by f.created_at, f.id`;
  return Promise.all(rows.map(toFolder));
}

/** @throws Fault 404 */
export async function getFolder(id: string): Promise<Folder> {
  const [row] = await sql()<Row[]>`${select()} where f.id = ${id}`;
  if (!row) throw notFound('folder');
  return toFolder(row);
}

/** A folder that something is kept in now. @throws Fault 404, 409 for one that is not confirmed */
export async function usableFolder(id: string): Promise<Folder> {
  const folder = await getFolder(id);
  if (folder.unconfirmed) throw UNCONFIRMED;
  return folder;
}

/** Which folder is the default one is told by all of them, so they are changed one at a time. */
const oneAtATime = <T>(act: (tx: postgres.TransactionSql) => Promise<T>) =>
  sql().begin(async (tx) => {
    await tx`lock table folders in share row exclusive mode`;
    return act(tx);
  });

/** The first folder becomes the default one. @throws Fault 400 when place or options will not do */
export async function addFolder(wanted: FolderInput, id: string = randomUUID()): Promise<Folder> {
  const input = folderInputSchema.parse(wanted);
  fit(input.options, optionsOf(formats[input.format]));
  const path = await checkPlace(input.path, input.make);
  await oneAtATime(async (tx) => {
    const [any] = await tx`select 1 from folders limit 1`;
    const isDefault = input.isDefault || !any;
    if (isDefault) await tx`update folders set is_default = false where is_default`;
    await tx`insert into folders (id, name, path, format, quality, options, size, max_bytes,
        facts, pattern, look, number_by, is_default)
      values (${id}, ${input.name}, ${path}, ${input.format}, ${input.quality},
        ${json(input.options)}, ${json(input.size)}, ${input.maxBytes}, ${json(input.facts)},
        ${input.pattern}, ${input.look}, ${input.numberBy}, ${isDefault})`;
  });
  return getFolder(id);
}

/** @throws Fault 400 when the new place will not do, 404 */
export async function changeFolder(
  id: string,
  patch: z.output<typeof folderPatchSchema>,
): Promise<Folder> {
  const { make = false, isDefault, path: wanted, confirmed = false, ...rest } = patch;
  const before = await getFolder(id);
  // What came in is looked at when it is confirmed, and must lie where copies may be put.
  const looked = wanted ?? (confirmed ? before.path : undefined);
  const path = looked === undefined ? before.path : await checkPlace(looked, make);
  // Options belong to a format; with another one they begin anew.
  const other = rest.format !== undefined && rest.format !== before.format;
  const options = rest.options ?? (other ? {} : before.options);
  const next = { ...before, ...rest, options, path };
  fit(next.options, optionsOf(formats[next.format]));
  const done = await oneAtATime(async (tx) => {
    if (isDefault) await tx`update folders set is_default = false where is_default`;
    return tx`update folders set name = ${next.name}, path = ${next.path}, format = ${next.format},
      quality = ${next.quality}, options = ${json(next.options)}, size = ${json(next.size)},
      max_bytes = ${next.maxBytes}, facts = ${json(next.facts)}, pattern = ${next.pattern},
      look = ${next.look}, number_by = ${next.numberBy},
      unconfirmed = ${confirmed ? false : sql()`unconfirmed`},
      is_default = ${isDefault === undefined ? sql()`is_default` : isDefault} where id = ${id}`;
  });
  if (done.count === 0) throw notFound('folder');
  return getFolder(id);
}

/** Forgets a folder; its files stay where they are. @throws Fault 404 */
export async function removeFolder(id: string): Promise<void> {
  const gone = await sql()`delete from folders where id = ${id}`;
  if (gone.count === 0) throw notFound('folder');
}
