import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import { lookSchema, type Look, type LookPatch, type lookInputSchema } from '@/core/contracts/look';
import { json, sql } from '../db/sql';
import { checkHeld } from '../frames/intake';
import { Fault, notFound } from '../base/fault';

const MOST = 100;

const select = () => sql()`select id, name, key, finish, pictures from looks`;
const toLook = ({ pictures, ...row }: { pictures?: unknown }): Look =>
  lookSchema.parse({ ...row, ...(pictures ? { pictures } : {}) });

/** All looks in their order. */
export async function listLooks(): Promise<Look[]> {
  const rows = await sql()<{ pictures: unknown }[]>`${select()} order by position, name, id`;
  return rows.map(toLook);
}

/** @throws Fault 404 */
export async function getLook(id: string): Promise<Look> {
  const [row] = await sql()<{ pictures: unknown }[]>`${select()} where id = ${id}`;
  if (!row) throw notFound('look');
  return toLook(row);
}

async function refuseTaken(
  { name, key }: { name?: string | undefined; key?: string | null | undefined },
  except: string,
): Promise<void> {
  const [other] = await sql()<{ name: string; key: string | null }[]>`
    select name, key from looks where id <> ${except}
    and (lower(name) = lower(${name ?? ''}) or key = ${key ?? null})`;
  if (!other) return;
  if (key && other.key === key) {
    throw new Fault(409, 'key-taken', `The look “${other.name}” has this key already.`);
  }
  throw new Fault(409, 'name-taken', `There is a look “${other.name}” already.`);
}

/** @throws Fault 409 when another look has the name or the key */
export async function addLook(input: z.output<typeof lookInputSchema>): Promise<Look> {
  const id = randomUUID();
  await refuseTaken(input, id);
  await checkHeld(input.pictures, undefined);
  const { name, key, finish, pictures } = input;
  const added = await sql()`insert into looks (id, name, key, finish, pictures, position)
    select ${id}, ${name}, ${key}, ${json(finish)}, ${pictures ? json(pictures) : null},
      coalesce(max(position), 0) + 1
    from looks having count(*) < ${MOST}`;
  if (added.count === 0) throw new Fault(409, 'too-many', `There can be ${MOST} looks at most.`);
  return getLook(id);
}

/** Shots that have it stay as they are. @throws Fault 404, 409 */
export async function changeLook(id: string, patch: LookPatch): Promise<Look> {
  await refuseTaken(patch, id);
  const before = await getLook(id);
  await checkHeld(patch.pictures, before.pictures);
  // Another set of settings brings its own pictures.
  const pictures = patch.finish ? patch.pictures : before.pictures;
  const now = { ...before, ...patch };
  await sql()`update looks set name = ${now.name}, key = ${now.key}, finish = ${json(now.finish)},
    pictures = ${pictures ? json(pictures) : null} where id = ${id}`;
  return getLook(id);
}

/** Folders and routines that gave it give none any more. @throws Fault 404 */
export async function removeLook(id: string): Promise<void> {
  await sql().begin(async (tx) => {
    const gone = await tx`delete from looks where id = ${id}`;
    if (gone.count === 0) throw notFound('look');
    await tx`update routines set way = way || '{"look": null}'::jsonb where way->>'look' = ${id}`;
  });
}
