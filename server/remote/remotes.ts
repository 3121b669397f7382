import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { remoteInputSchema } from '@/core/contracts/remote';
import { remoteSchema, type Remote, type remotePatchSchema } from '@/core/contracts/remote';
import { json, sql } from '../db/sql';
import { fit } from '../http/body';
import { notFound } from '../http/fault';
import { formats } from '../keep/formats';
import { optionsOf } from '../keep/formats/contract';

/** With its password, for the sender only. */
const rowSchema = remoteSchema
  .omit({ waiting: true })
  .extend({ password: z.string(), maxBytes: z.coerce.number().int().nullable() });
export type RemoteRow = z.infer<typeof rowSchema>;

const select = () => sql()`select r.*, r.max_bytes as "maxBytes",
  (select count(*)::int from sendings s where s.remote_id = r.id and s.state = 'waiting') as waiting
  from remotes r`;

export async function listRemotes(): Promise<Remote[]> {
  const rows = await sql()<{ maxBytes: string | null }[]>`${select()} order by r.created_at, r.id`;
  return rows.map((row) =>
    remoteSchema.parse({ ...row, maxBytes: row.maxBytes === null ? null : Number(row.maxBytes) }),
  );
}

async function getRemote(id: string): Promise<Remote> {
  const found = (await listRemotes()).find((remote) => remote.id === id);
  if (!found) throw notFound('remote folder');
  return found;
}

/** @throws Fault 400 for options that the format does not have */
export async function addRemote(
  input: z.output<typeof remoteInputSchema>,
  practice = false,
): Promise<Remote> {
  fit(input.options, optionsOf(formats[input.format]));
  const id = randomUUID();
  await sql()`insert into remotes (id, name, url, username, password, format, quality, options,
      size, max_bytes, facts, pattern, practice)
    values (${id}, ${input.name}, ${input.url}, ${input.username}, ${input.password}, ${input.format},
      ${input.quality}, ${json(input.options)}, ${json(input.size)}, ${input.maxBytes},
      ${json(input.facts)}, ${input.pattern}, ${practice})`;
  return getRemote(id);
}

/** What waits already is sent as it was made. @throws Fault 400, 404 */
export async function changeRemote(
  id: string,
  patch: z.output<typeof remotePatchSchema>,
): Promise<Remote> {
  const before = await remoteRow(id);
  const other = patch.format !== undefined && patch.format !== before.format;
  const next = { ...before, ...patch, options: patch.options ?? (other ? {} : before.options) };
  fit(next.options, optionsOf(formats[next.format]));
  await sql()`update remotes set name = ${next.name}, url = ${next.url},
    username = ${next.username}, password = ${next.password}, format = ${next.format},
    quality = ${next.quality}, options = ${json(next.options)}, size = ${json(next.size)},
    max_bytes = ${next.maxBytes}, facts = ${json(next.facts)}, pattern = ${next.pattern}
    where id = ${id}`;
  return getRemote(id);
}

/** Forgets a remote folder and what still waits for it. @throws Fault 404 */
export async function removeRemote(id: string): Promise<void> {
  const gone = await sql()`delete from remotes where id = ${id}`;
  if (gone.count === 0) throw notFound('remote folder');
}

/** @throws Fault 404 */
export async function remoteRow(id: string): Promise<RemoteRow> {
  const [row] = await sql()`${select()} where r.id = ${id}`;
  if (!row) throw notFound('remote folder');
  return rowSchema.parse(row);
}
