import { LISTS } from '@/core/archive/entries';
import {
  guideFileRecord,
  lookRecord,
  numberRecord,
  searchRecord,
  tagRecord,
} from '@/core/archive/records';
import { limits } from '@/core/values/limits';
import { json, sql } from '../db/sql';
import { Fault } from '../base/fault';
import { checkHeld } from '../frames/intake';
import { folded } from '../indexing/indexing';
import { time } from './asHere';
import { bring, listed, type Incoming, type Tx } from './incoming';
import { bringFolders, bringRemotes, bringRoutines } from './inPlaces';
import { bringSettings } from './inSettings';

/** Brings in all lists but what follows from shots. What is here stays as it is. */
export async function bringLists(incoming: Incoming): Promise<void> {
  await bringLooks(incoming);
  await bringFolders(incoming);
  await bringRemotes(incoming);
  await bringTags(incoming);
  await bringSearches(incoming);
  await bringRoutines(incoming);
  await bringNumbers(incoming);
  await bringSettings(incoming);
}

/** A name that is not taken, numbered where it must be. */
async function freeName(
  wanted: string,
  taken: (name: string) => Promise<boolean>,
): Promise<string> {
  for (let n = 1; ; n += 1) {
    const name = n === 1 ? wanted : `${wanted.slice(0, 70)} (${n})`;
    if (!(await taken(name))) return name;
  }
}

async function bringLooks(incoming: Incoming): Promise<void> {
  for (const record of await listed(incoming, LISTS.looks, lookRecord)) {
    const isTaken = async (tx: Tx, name: string): Promise<boolean> =>
      (await tx`select 1 from looks where lower(name) = lower(${name})`).length > 0;
    try {
      await checkHeld(record.pictures, undefined);
    } catch (error) {
      if (!(error instanceof Fault)) throw error;
      incoming.reporting.damaged(LISTS.looks, `${record.name}: ${error.message}`);
      continue;
    }
    await bring(incoming, record, {
      kind: 'looks',
      // By what it does: one that was renamed here, or has another key, is the same.
      async here(tx, { id, name, key }) {
        const [row] = await tx<{ pictures: unknown }[]>`
          select id, finish, pictures from looks where id = ${id}`;
        if (!row) return undefined;
        const { pictures, ...rest } = row;
        // What it leaves out is as at first, in the archive and here.
        const stored = { ...rest, name, key, ...(pictures ? { pictures } : {}) };
        return lookRecord.safeParse(stored).data ?? stored;
      },
      async add(tx, id, { name, key, finish, pictures }) {
        const own = await freeName(name, (one) => isTaken(tx, one));
        const [other] = await tx`select 1 from looks where key = ${key}`;
        await tx`insert into looks (id, name, key, finish, pictures, position)
          select ${id}, ${own}, ${other ? null : key}, ${json(finish)},
            ${pictures ? json(pictures) : null}, coalesce(max(position), 0) + 1 from looks`;
        return true;
      },
    });
  }
}

async function bringTags(incoming: Incoming): Promise<void> {
  for (const record of await listed(incoming, LISTS.tags, tagRecord)) {
    await bring(incoming, record, {
      kind: 'tags',
      // One that was renamed or coloured here is the same tag.
      async here(tx, { id }) {
        const [row] = await tx`select 1 from tags where id = ${id}`;
        return row ? record : undefined;
      },
      async alike(tx, { name }) {
        const [row] = await tx<{ id: string }[]>`
          select id from tags where folded = ${folded(name)}`;
        return row?.id ?? null;
      },
      async add(tx, id, { name, colour }) {
        const added = await tx`insert into tags (id, name, folded, colour, made_at)
          select ${id}, ${name}, ${folded(name)}, ${colour}, clock_timestamp()
          where (select count(*) from tags) < ${limits.tags}`;
        return added.count > 0;
      },
    });
  }
}

async function bringSearches(incoming: Incoming): Promise<void> {
  for (const record of await listed(incoming, LISTS.searches, searchRecord)) {
    await bring(incoming, record, {
      kind: 'searches',
      async here(tx, { id, name }) {
        const [row] =
          await tx`select id, query, order_by as "order" from searches where id = ${id}`;
        return row && { ...row, name };
      },
      async alike(tx, { name, query }) {
        const [row] = await tx<{ id: string }[]>`
          select id from searches where name = ${name} and query = ${query} limit 1`;
        return row?.id ?? null;
      },
      async add(tx, id, { name, query, order }) {
        const added = await tx`insert into searches (id, name, query, order_by, position)
          select ${id}, ${name}, ${query}, ${order}, coalesce(max(position), 0) + 1
          from searches having count(*) < ${limits.savedSearches}`;
        return added.count > 0;
      },
    });
  }
}

/** Numbers never count back: a name that was given is not given again. */
async function bringNumbers(incoming: Incoming): Promise<void> {
  for (const { pattern, nextNumber } of await listed(incoming, LISTS.numbers, numberRecord)) {
    await sql()`insert into pattern_numbers (pattern, next_number)
      values (${pattern}, ${nextNumber}) on conflict (pattern) do update
      set next_number = greatest(pattern_numbers.next_number, excluded.next_number)`;
  }
}

/** Where guides were kept: named, as copies are, when the rest of a shot is dropped. */
export async function bringGuideFiles(incoming: Incoming): Promise<void> {
  for (const { id, path, shows, keptAt } of await listed(
    incoming,
    LISTS.guideFiles,
    guideFileRecord,
  )) {
    await sql()`insert into guide_files (id, path, shows, kept_at)
      values (${id}, ${path}, ${shows}, ${time(keptAt)}) on conflict (id) do nothing`;
  }
}
