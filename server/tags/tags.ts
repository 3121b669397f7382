import { randomUUID } from 'node:crypto';
import type postgres from 'postgres';
import type { z } from 'zod';
import { limits } from '@/core/values/limits';
import type { manyTagsSchema, Tag, tagPatchSchema } from '@/core/contracts/search';
import { markColours } from '@/core/colour/markColours';
import { sql } from '../db/sql';
import { Fault, notFound } from '../base/fault';
import { folded, indexShot } from '../indexing/indexing';

/** Any number of our own, as migrations have theirs: tags are made one after the other. */
const LOCK = 4311;

/** All tags by name, with how many shots have each. */
export async function listTags(): Promise<Tag[]> {
  return sql()<Tag[]>`
    select t.id, t.name, t.colour, count(s.id)::int as shots
    from tags t left join shot_tags st on st.tag_id = t.id
      left join shots s on s.id = st.shot_id and s.binned_at is null
    group by t.id order by t.folded`;
}

/** @throws Fault 404 */
async function getTag(id: string): Promise<Tag> {
  const tag = (await listTags()).find((one) => one.id === id);
  if (!tag) throw notFound('tag');
  return tag;
}

/** The tags of such names; those that are not there yet are made. @throws Fault 409 for too many */
async function tagsNamed(tx: postgres.TransactionSql, names: readonly string[]): Promise<string[]> {
  await tx`select pg_advisory_xact_lock(${LOCK})`;
  const ids: string[] = [];
  for (const name of names) {
    const key = folded(name);
    const [there] = await tx<{ id: string }[]>`select id from tags where folded = ${key}`;
    if (there) {
      ids.push(there.id);
      continue;
    }
    const [sum] = await tx<{ n: number }[]>`select count(*)::int as n from tags`;
    const n = sum?.n ?? 0;
    if (n >= limits.tags) {
      throw new Fault(409, 'too-many', `There can be ${limits.tags} tags at most.`);
    }
    const id = randomUUID();
    const colour = markColours[(n + 1) % markColours.length]?.hex ?? markColours[0].hex;
    await tx`insert into tags (id, name, folded, colour) values (${id}, ${name}, ${key}, ${colour})`;
    ids.push(id);
  }
  return ids;
}

async function tagShot(tx: postgres.TransactionSql, shot: string, tags: readonly string[]) {
  await tx`insert into shot_tags (shot_id, tag_id)
    select ${shot}, t from unnest(${[...tags]}::uuid[]) t on conflict do nothing`;
  const [row] = await tx<{ n: number }[]>`
    select count(*)::int as n from shot_tags where shot_id = ${shot}`;
  if ((row?.n ?? 0) > limits.tagsOfShot) {
    throw new Fault(409, 'too-many', `A shot can have ${limits.tagsOfShot} tags at most.`);
  }
}

async function namesOf(db: postgres.ISql, shot: string): Promise<string[]> {
  const rows = await db<{ name: string }[]>`
    select t.name from shot_tags st join tags t on t.id = st.tag_id
    where st.shot_id = ${shot} order by t.folded`;
  return rows.map(({ name }) => name);
}

/** The names of a shot's tags. @throws Fault 404 */
export async function tagsOf(shot: string): Promise<string[]> {
  const [there] = await sql()`select 1 from shots where id = ${shot}`;
  if (!there) throw notFound('shot');
  return namesOf(sql(), shot);
}

/** @throws Fault 404 when one of the shots is gone */
async function holdShots(tx: postgres.TransactionSql, shots: readonly string[]): Promise<void> {
  const rows = await tx`
    select 1 from shots where id = any(${[...shots]}::uuid[]) order by id for no key update`;
  if (rows.length < new Set(shots).size) throw notFound('shot');
}

/** Gives a shot exactly these tags. @throws Fault 404, 409 */
export async function setTags(shot: string, names: readonly string[]): Promise<string[]> {
  return sql().begin(async (tx) => {
    const tags = await tagsNamed(tx, names);
    await holdShots(tx, [shot]);
    await tx`delete from shot_tags where shot_id = ${shot} and tag_id <> all(${tags}::uuid[])`;
    await tagShot(tx, shot, tags);
    await indexShot(tx, shot);
    return namesOf(tx, shot);
  });
}

/** Gives tags to several shots and takes others from them; all of it or nothing. @throws Fault 404, 409 */
export async function tagMany({ shots, add, remove }: z.output<typeof manyTagsSchema>) {
  await sql().begin(async (tx) => {
    const tags = await tagsNamed(tx, add);
    await holdShots(tx, shots);
    const gone = remove.map(folded);
    await tx`delete from shot_tags where shot_id = any(${shots}::uuid[])
      and tag_id in (select id from tags where folded = any(${gone}))`;
    for (const shot of shots) {
      await tagShot(tx, shot, tags);
      await indexShot(tx, shot);
    }
  });
}

/** Shots are found by the names of their tags. */
async function indexTagged(tx: postgres.TransactionSql, tag: string): Promise<() => Promise<void>> {
  const rows = await tx<{ shotId: string }[]>`
    select shot_id from shot_tags where tag_id = ${tag} order by shot_id`;
  return async () => {
    for (const { shotId: id } of rows) await indexShot(tx, id);
  };
}

/**
 * Another name or colour. Where another tag has the name, both become one when that is wanted.
 * @throws Fault 404, 409
 */
export async function changeTag(id: string, patch: z.output<typeof tagPatchSchema>): Promise<Tag> {
  const left = await sql().begin(async (tx) => {
    await tx`select pg_advisory_xact_lock(${LOCK})`;
    const [tag] = await tx`select 1 from tags where id = ${id} for update`;
    if (!tag) throw notFound('tag');
    if (patch.colour) await tx`update tags set colour = ${patch.colour} where id = ${id}`;
    if (patch.name === undefined) return id;
    const key = folded(patch.name);
    const index = await indexTagged(tx, id);
    const [other] = await tx<{ id: string; name: string }[]>`
      select id, name from tags where folded = ${key} and id <> ${id}`;
    if (other && !patch.merge) {
      throw new Fault(
        409,
        'name-taken',
        `There is a tag “${other.name}” already. Both can become one.`,
      );
    }
    if (other) {
      await tx`insert into shot_tags (shot_id, tag_id)
        select shot_id, ${other.id} from shot_tags where tag_id = ${id} on conflict do nothing`;
      await tx`delete from tags where id = ${id}`;
    } else {
      await tx`update tags set name = ${patch.name}, folded = ${key} where id = ${id}`;
    }
    await index();
    return other?.id ?? id;
  });
  return getTag(left);
}

/** Takes a tag from all shots. @throws Fault 404 */
export async function removeTag(id: string): Promise<void> {
  await sql().begin(async (tx) => {
    const index = await indexTagged(tx, id);
    const done = await tx`delete from tags where id = ${id}`;
    if (done.count === 0) throw notFound('tag');
    await index();
  });
}
