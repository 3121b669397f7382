import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import {
  firstWay,
  waySchema,
  type Routine,
  type routineInputSchema,
  type routinePatchSchema,
} from '@/core/contracts/way';
import { json, sql } from '../db/sql';
import { Fault, notFound } from '../base/fault';

interface Row {
  id: string;
  name: string;
  key: string | null;
  systemKey: string | null;
  way: object;
  unconfirmed: boolean;
}

const MOST = 100;

/** A stored way may lack what came later: the rest is as at first. */
const toRoutine = ({ way, ...row }: Row): Routine => ({
  ...row,
  way: waySchema.parse({ ...firstWay, ...way }),
});

/** All routines in the order a person gave them. */
export async function listRoutines(): Promise<Routine[]> {
  const rows = await sql()<Row[]>`select id, name, key, system_key, way, unconfirmed
    from routines order by position, id`;
  return rows.map(toRoutine);
}

/** @throws Fault 404 */
export async function getRoutine(id: string): Promise<Routine> {
  const [row] = await sql()<Row[]>`select id, name, key, system_key, way, unconfirmed
    from routines where id = ${id}`;
  if (!row) throw notFound('routine');
  return toRoutine(row);
}

interface Keys {
  key?: string | null | undefined;
  systemKey?: string | null | undefined;
}

async function refuseTakenKey({ key, systemKey }: Keys, except: string): Promise<void> {
  const [other] = await sql()<{ name: string }[]>`
    select name from routines where id <> ${except}
    and (key = ${key ?? null} or system_key = ${systemKey ?? null})`;
  if (other) throw new Fault(409, 'key-taken', `The routine “${other.name}” has this key already.`);
}

/** @throws Fault 409 when another routine has the key */
export async function addRoutine(input: z.output<typeof routineInputSchema>): Promise<Routine> {
  const id = randomUUID();
  await refuseTakenKey(input, id);
  const added = await sql()`insert into routines (id, name, key, system_key, way, position)
    select ${id}, ${input.name}, ${input.key}, ${input.systemKey}, ${json(input.way)}, coalesce(max(position), 0) + 1
    from routines having count(*) < ${MOST}`;
  if (added.count === 0) throw new Fault(409, 'too-many', `There can be ${MOST} routines at most.`);
  return getRoutine(id);
}

/** @throws Fault 404, 409 */
export async function changeRoutine(
  id: string,
  patch: z.output<typeof routinePatchSchema>,
): Promise<Routine> {
  await refuseTakenKey(patch, id);
  const { confirmed = false, ...changes } = patch;
  const now = { ...(await getRoutine(id)), ...changes };
  await sql()`update routines set name = ${now.name}, key = ${now.key},
    system_key = ${now.systemKey}, way = ${json(now.way)},
    unconfirmed = ${confirmed ? false : now.unconfirmed}
    where id = ${id}`;
  return getRoutine(id);
}

/** @throws Fault 404 */
export async function removeRoutine(id: string): Promise<void> {
  const gone = await sql()`delete from routines where id = ${id}`;
  if (gone.count === 0) throw notFound('routine');
}

/** Puts the routines in the order of the ids; those not named stay behind them as they were. */
export async function orderRoutines(ids: readonly string[]): Promise<void> {
  await sql().begin(async (tx) => {
    await tx`update routines set position = position + ${ids.length}`;
    for (const [i, id] of ids.entries()) {
      await tx`update routines set position = ${i} where id = ${id}`;
    }
  });
}
