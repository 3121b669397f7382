import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { remoteInputSchema } from '@/core/contracts/remote';
import { remoteSchema, type Remote, type remotePatchSchema } from '@/core/contracts/remote';
import { json, sql } from '../db/sql';
import { fit } from '../http/body';
import { Fault, notFound } from '../base/fault';
import { formats } from '../formats';
import { optionsOf } from '../formats/contract';
import type { To } from './dav';
import { RemoteProblem } from './problems';
import { seal, unseal } from './sealed';
import { tryOut, type Guard } from './send';

/** With its password, sealed, for the sender only. */
const rowSchema = remoteSchema.omit({ caution: true }).extend({
  password: z.string(),
  guard: z.enum(['header', 'move', 'none']).nullable(),
  maxBytes: z.coerce.number().int().nullable(),
});
export type RemoteRow = z.infer<typeof rowSchema>;

const select = () => sql()`select r.*,
  (select count(*)::int from sendings s join jobs j on j.id = s.id
    where s.remote_id = r.id and j.state <> 'done') as waiting
  from remotes r`;

const CAUTION =
  'This remote folder may let a file be overwritten when two are written under one name at the same moment. Rezzik asks before it writes; nothing more can be done there.';

export async function listRemotes(): Promise<Remote[]> {
  const rows = await sql()<
    { maxBytes: string | null; guard: Guard | null }[]
  >`${select()} order by r.created_at, r.id`;
  return rows.map((row) =>
    remoteSchema.parse({
      ...row,
      caution: row.guard === 'none' ? CAUTION : null,
      maxBytes: row.maxBytes === null ? null : Number(row.maxBytes),
    }),
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
  // One that cannot be reached now is asked at the first sending.
  const guard = await askGuard(input);
  await sql()`insert into remotes (id, name, url, username, password, sealed, guard, format,
      quality, options, size, max_bytes, facts, pattern, look, practice, readable, fingerprint, address)
    values (${id}, ${input.name}, ${input.url}, ${input.username}, ${await seal(input.password)}, true,
      ${guard}, ${input.format}, ${input.quality}, ${json(input.options)}, ${json(input.size)},
      ${input.maxBytes}, ${json(input.facts)}, ${input.pattern}, ${input.look}, ${practice}, ${input.readable},
      ${input.fingerprint}, ${input.address})`;
  return getRemote(id);
}

/** How long the setting up of a remote folder waits for it, ms. */
const PATIENCE = { silence: 4_000, whole: 8_000 };

const askGuard = (to: To): Promise<Guard | null> =>
  tryOut(to, AbortSignal.timeout(PATIENCE.whole), PATIENCE).catch((error: unknown) => {
    if (!(error instanceof RemoteProblem) || !error.choice) return null;
    const { choice, message, fingerprint } = error;
    const status = choice === 'forbidden-address' ? 400 : 409;
    throw new Fault(status, choice, message, fingerprint ? { fingerprint } : {});
  });

/**
 * What waits already is sent as it was made. A password goes only where it was typed for.
 * @throws Fault 400 for another address without the password, 404
 */
export async function changeRemote(
  id: string,
  patch: z.output<typeof remotePatchSchema>,
): Promise<Remote> {
  const before = await remoteRow(id);
  const other = patch.format !== undefined && patch.format !== before.format;
  const { confirmed = false, ...changes } = patch;
  const next = { ...before, ...changes, options: patch.options ?? (other ? {} : before.options) };
  fit(next.options, optionsOf(formats[next.format]));
  const moved = next.url !== before.url || next.username !== before.username;
  if (moved && before.password !== '' && patch.password === undefined) {
    throw new Fault(
      400,
      'password-again',
      'The address or the user name is another one now, so the password must be typed again.',
    );
  }
  const password = patch.password === undefined ? before.password : await seal(patch.password);
  const allowed = next.readable !== before.readable || next.fingerprint !== before.fingerprint;
  // Where something did not go through, a person may have come to allow what stands in the way.
  const unsure = before.guard === null || before.waiting > 0;
  const asks = moved || allowed || unsure || patch.password !== undefined;
  const found = asks
    ? await askGuard({ ...next, password: patch.password ?? (await unseal(before.password)) })
    : null;
  const guard = found ?? (moved ? null : before.guard);
  await sql()`update remotes set name = ${next.name}, url = ${next.url}, guard = ${guard},
    username = ${next.username}, password = ${password}, sealed = true, format = ${next.format},
    quality = ${next.quality}, options = ${json(next.options)}, size = ${json(next.size)},
    max_bytes = ${next.maxBytes}, facts = ${json(next.facts)}, pattern = ${next.pattern},
    look = ${next.look}, unconfirmed = ${confirmed ? false : before.unconfirmed}, readable = ${next.readable}, fingerprint = ${next.fingerprint}, address = ${next.address}
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
