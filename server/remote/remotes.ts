import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import { remoteSchema, type Remote, type remoteInputSchema } from '@/core/contracts/remote';
import { json, sql } from '../db/sql';
import { notFound } from '../http/fault';

export interface RemoteRow {
  id: string;
  name: string;
  url: string;
  username: string;
  password: string;
  format: string;
  quality: number;
  options: unknown;
  size: unknown;
  facts: unknown;
  pattern: string;
  practice: boolean;
}

export async function listRemotes(): Promise<Remote[]> {
  const rows = await sql()<(RemoteRow & { waiting: number })[]>`
    select r.*, (select count(*)::int from sendings s
      where s.remote_id = r.id and s.state = 'waiting') as waiting
    from remotes r order by r.created_at, r.id`;
  return rows.map((row) => remoteSchema.parse(row));
}

export async function addRemote(
  input: z.output<typeof remoteInputSchema>,
  practice = false,
): Promise<Remote> {
  const id = randomUUID();
  await sql()`insert into remotes
    (id, name, url, username, password, format, quality, options, size, facts, pattern, practice)
    values (${id}, ${input.name}, ${input.url}, ${input.username}, ${input.password}, ${input.format},
      ${input.quality}, ${json(input.options)}, ${json(input.size)}, ${json(input.facts)},
      ${input.pattern}, ${practice})`;
  const added = (await listRemotes()).find((remote) => remote.id === id);
  if (!added) throw notFound('remote folder');
  return added;
}

/** Forgets a remote folder and what still waits for it. @throws Fault 404 */
export async function removeRemote(id: string): Promise<void> {
  const gone = await sql()`delete from remotes where id = ${id}`;
  if (gone.count === 0) throw notFound('remote folder');
}

/** With its password, for the sender only. @throws Fault 404 */
export async function remoteRow(id: string): Promise<RemoteRow> {
  const [row] = await sql()<RemoteRow[]>`select * from remotes where id = ${id}`;
  if (!row) throw notFound('remote folder');
  return row;
}
