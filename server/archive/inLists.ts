import { createHash } from 'node:crypto';
import { deepEqual } from 'fast-equals';
import type postgres from 'postgres';
import type { z } from 'zod';
import { LISTS, type ListName } from '@/core/archive/entries';
import { listRecords, type Lists } from '@/core/archive/records';
import { idOf } from '@/core/archive/relation';
import type { BroughtKind } from '@/core/contracts/archive';
import { settingsSchema } from '@/core/contracts/settings';
import { firstWay, waySchema } from '@/core/contracts/way';
import { limits } from '@/core/values/limits';
import { json, sql } from '../db/sql';
import { Fault } from '../base/fault';
import { checkHeld } from '../frames/intake';
import { folded } from '../indexing/indexing';
import { time, withIds } from './asHere';
import type { Reporting } from './reporting';
import { Damaged, type OpenArchive } from './zipIn';

type Tx = postgres.TransactionSql;

/** What comes in, what is said of it, and what its identities are here. */
export interface Incoming {
  archive: OpenArchive;
  reporting: Reporting;
  ids: Map<string, string>;
}

/**
 * The identity under which something is put beside another one that has its own.
 * @param says what makes it another one
 */
export const besideId = (says: unknown): string =>
  idOf(createHash('sha256').update(JSON.stringify(says)).digest('hex'));

async function list<N extends ListName>(
  { archive, reporting }: Incoming,
  name: N,
): Promise<Lists[N] | null> {
  if (!archive.has(LISTS[name])) return null;
  try {
    // Each name has its own schema; together they are a union that no longer knows which.
    return (await archive.json(LISTS[name], listRecords[name])) as Lists[N];
  } catch (error) {
    if (!(error instanceof Damaged)) throw error;
    reporting.damaged(LISTS[name], error.message);
    return null;
  }
}

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

interface Same<R> {
  kind: BroughtKind;
  /** The one here that has its identity, as an archive would hold it. */
  here: (tx: Tx, record: R) => Promise<unknown>;
  /** Another one here that does the same. */
  alike?: (tx: Tx, record: R) => Promise<string | null>;
  add: (tx: Tx, id: string, record: R, beside: boolean) => Promise<void>;
  called: (record: R) => string;
}

/**
 * One record: left where the same is here, added where nothing is, put beside what is another one of
 * the same identity.
 */
async function bring<R extends { id: string }>(
  { reporting, ids }: Incoming,
  record: R,
  { kind, here, alike, add, called }: Same<R>,
): Promise<void> {
  await sql().begin(async (tx) => {
    const there = await here(tx, record);
    if (there !== undefined && deepEqual(there, record)) return reporting.count(kind, 'here');
    const other = there === undefined ? await alike?.(tx, record) : null;
    if (other) {
      ids.set(record.id, other);
      return reporting.count(kind, 'here');
    }
    if (there === undefined) {
      await add(tx, record.id, record, false);
      return reporting.count(kind, 'added');
    }
    // By what it does: one that was renamed in a later archive does not come once more.
    const id = besideId({ ...record, name: '', key: null, systemKey: null });
    ids.set(record.id, id);
    if ((await here(tx, { ...record, id })) !== undefined) return reporting.count(kind, 'here');
    await add(tx, id, record, true);
    reporting.count(kind, 'beside');
    reporting.tell(`“${called(record)}” (${kind}) is another one here; both are kept.`);
  });
}

async function bringLooks(incoming: Incoming): Promise<void> {
  for (const record of (await list(incoming, 'looks')) ?? []) {
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
      called: ({ name }) => name,
      // By what it does: one that was renamed here, or has another key, is the same.
      async here(tx, { id, name, key }) {
        const [row] = await tx<{ pictures: unknown }[]>`
          select id, finish, pictures from looks where id = ${id}`;
        if (!row) return undefined;
        const { pictures, ...rest } = row;
        return { ...rest, name, key, ...(pictures ? { pictures } : {}) };
      },
      async add(tx, id, { name, key, finish, pictures }) {
        const own = await freeName(name, (one) => isTaken(tx, one));
        const [other] = await tx`select 1 from looks where key = ${key}`;
        await tx`insert into looks (id, name, key, finish, pictures, position)
          select ${id}, ${own}, ${other ? null : key}, ${json(finish)},
            ${pictures ? json(pictures) : null}, coalesce(max(position), 0) + 1 from looks`;
      },
    });
  }
}

/** A look that is not here is none. */
async function lookHere(tx: Tx, { ids }: Incoming, look: string | null): Promise<string | null> {
  const wanted = look && (ids.get(look) ?? look);
  if (!wanted) return null;
  const [there] = await tx`select 1 from looks where id = ${wanted}`;
  return there ? wanted : null;
}

/** A folder does nothing before a person has looked where it leads. */
async function bringFolders(incoming: Incoming): Promise<void> {
  for (const record of (await list(incoming, 'folders')) ?? []) {
    await bring(incoming, record, {
      kind: 'folders',
      called: ({ name }) => name,
      // Whatever was changed of it here: it is the person's own folder.
      async here(tx, { id }) {
        const [row] = await tx`select 1 from folders where id = ${id}`;
        return row ? record : undefined;
      },
      async alike(tx, { path }) {
        const [row] = await tx<{ id: string }[]>`
          select id from folders where path = ${path} order by created_at limit 1`;
        return row?.id ?? null;
      },
      async add(tx, id, folder) {
        const [any] = await tx`select 1 from folders where is_default`;
        await tx`insert into folders (id, name, path, format, quality, options, size, max_bytes,
            facts, pattern, look, number_by, is_default, next_number, unconfirmed, created_at)
          values (${id}, ${folder.name}, ${folder.path}, ${folder.format}, ${folder.quality},
            ${json(folder.options)}, ${json(folder.size)}, ${folder.maxBytes},
            ${json(folder.facts)}, ${folder.pattern}, ${await lookHere(tx, incoming, folder.look)},
            ${folder.numberBy}, ${folder.isDefault && !any}, ${folder.nextNumber}, true,
            clock_timestamp())`;
      },
    });
  }
}

/** The same; its password is not in an archive. */
async function bringRemotes(incoming: Incoming): Promise<void> {
  for (const record of (await list(incoming, 'remotes')) ?? []) {
    await bring(incoming, record, {
      kind: 'remotes',
      called: ({ name }) => name,
      async here(tx, { id }) {
        const [row] = await tx`select 1 from remotes where id = ${id}`;
        return row ? record : undefined;
      },
      async alike(tx, { url, username }) {
        const [row] = await tx<{ id: string }[]>`select id from remotes
          where url = ${url} and username = ${username} order by created_at limit 1`;
        return row?.id ?? null;
      },
      async add(tx, id, remote) {
        await tx`insert into remotes (id, name, url, username, password, sealed, format, quality,
            options, size, max_bytes, facts, pattern, look, address, unconfirmed, created_at)
          values (${id}, ${remote.name}, ${remote.url}, ${remote.username}, '', false,
            ${remote.format}, ${remote.quality}, ${json(remote.options)}, ${json(remote.size)},
            ${remote.maxBytes}, ${json(remote.facts)}, ${remote.pattern},
            ${await lookHere(tx, incoming, remote.look)}, ${remote.address}, true,
            clock_timestamp())`;
      },
    });
  }
}

async function bringTags(incoming: Incoming): Promise<void> {
  for (const record of (await list(incoming, 'tags')) ?? []) {
    await bring(incoming, record, {
      kind: 'tags',
      called: ({ name }) => name,
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
        if (added.count === 0) incoming.reporting.tell(`There are too many tags for “${name}”.`);
      },
    });
  }
}

async function bringSearches(incoming: Incoming): Promise<void> {
  for (const record of (await list(incoming, 'searches')) ?? []) {
    await bring(incoming, record, {
      kind: 'searches',
      called: ({ name }) => name,
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
        if (added.count === 0) {
          incoming.reporting.tell(`There are too many saved searches for “${name}”.`);
        }
      },
    });
  }
}

/** A routine takes nothing before a person has confirmed it; a key that is taken here stays there. */
async function bringRoutines(incoming: Incoming): Promise<void> {
  for (const told of (await list(incoming, 'routines')) ?? []) {
    const record = { ...told, way: waySchema.parse(withIds(told.way, incoming.ids)) };
    await bring(incoming, record, {
      kind: 'routines',
      called: ({ name }) => name,
      async here(tx, { id, name, key, systemKey }) {
        const [row] = await tx<{ way: object }[]>`select way from routines where id = ${id}`;
        return row && { id, name, key, systemKey, way: { ...firstWay, ...row.way } };
      },
      async alike(tx, { name, way }) {
        const [row] = await tx<{ id: string }[]>`
          select id from routines where name = ${name} and way = ${json(way)} limit 1`;
        return row?.id ?? null;
      },
      async add(tx, id, { name, key, systemKey, way }) {
        const [own] = await tx`select 1 from routines where key = ${key}`;
        const [system] = await tx`select 1 from routines where system_key = ${systemKey}`;
        await tx`insert into routines (id, name, key, system_key, way, position, unconfirmed)
          select ${id}, ${name}, ${own ? null : key}, ${system ? null : systemKey},
            ${json(way)}, coalesce(max(position), 0) + 1, true
          from routines`;
      },
    });
  }
}

/** Numbers never count back: a name that was given is not given again. */
async function bringNumbers(incoming: Incoming): Promise<void> {
  for (const { pattern, nextNumber } of (await list(incoming, 'numbers')) ?? []) {
    await sql()`insert into pattern_numbers (pattern, next_number)
      values (${pattern}, ${nextNumber}) on conflict (pattern) do update
      set next_number = greatest(pattern_numbers.next_number, excluded.next_number)`;
  }
}

/** What lets others in, reads a screen or lets shots go is decided on each computer by whoever sits there. */
const DECIDED_HERE = new Set(['displayAllowed', 'partsAsked', 'linkPort', 'binDays', 'unkeptDays']);

const fieldOf = (name: string): z.ZodType | undefined =>
  new Map<string, z.ZodType>(Object.entries(settingsSchema.shape)).get(name);

/** Settings that were never set here; the others stay as they are. */
async function bringSettings(incoming: Incoming): Promise<void> {
  const stored = await list(incoming, 'settings');
  if (!stored) return;
  const sound = Object.entries(stored).filter(([name, value]) => {
    if (DECIDED_HERE.has(name)) return false;
    const field = name === 'way' ? waySchema.partial() : fieldOf(name);
    if (field?.safeParse(value).success) return true;
    incoming.reporting.damaged(LISTS.settings, `“${name}” cannot be read by this Rezzik`);
    return false;
  });
  const value = withIds(Object.fromEntries(sound), incoming.ids);
  // What is here lies over what comes in.
  await sql()`insert into settings (value) values (${json(value)})
    on conflict (id) do update set value = excluded.value || settings.value
    where jsonb_typeof(settings.value) = 'object'`;
}

/** Where guides were kept: named, as copies are, when the rest of a shot is dropped. */
export async function bringGuideFiles(incoming: Incoming): Promise<void> {
  for (const { id, path, shows, keptAt } of (await list(incoming, 'guideFiles')) ?? []) {
    await sql()`insert into guide_files (id, path, shows, kept_at)
      values (${id}, ${path}, ${shows}, ${time(keptAt)}) on conflict (id) do nothing`;
  }
}
