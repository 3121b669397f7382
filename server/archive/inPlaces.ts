import { LISTS } from '@/core/archive/entries';
import { folderRecord, remoteRecord, routineRecord } from '@/core/archive/records';
import { firstWay, waySchema } from '@/core/contracts/way';
import { json } from '../db/sql';
import { withIds } from './asHere';
import { bring, listed, type Incoming, type Tx } from './incoming';

/** A look that is not here is none. */
async function lookHere(tx: Tx, { ids }: Incoming, look: string | null): Promise<string | null> {
  const wanted = look && (ids.get(look) ?? look);
  if (!wanted) return null;
  const [there] = await tx`select 1 from looks where id = ${wanted}`;
  return there ? wanted : null;
}

/** A folder does nothing before a person has looked where it leads. */
export async function bringFolders(incoming: Incoming): Promise<void> {
  for (const record of await listed(incoming, LISTS.folders, folderRecord)) {
    await bring(incoming, record, {
      kind: 'folders',
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
        return true;
      },
    });
  }
}

/** The same; its password is not in an archive. */
export async function bringRemotes(incoming: Incoming): Promise<void> {
  for (const record of await listed(incoming, LISTS.remotes, remoteRecord)) {
    await bring(incoming, record, {
      kind: 'remotes',
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
        return true;
      },
    });
  }
}

/** A routine takes nothing before a person has confirmed it; a key that is taken here stays there. */
export async function bringRoutines(incoming: Incoming): Promise<void> {
  for (const told of await listed(incoming, LISTS.routines, routineRecord)) {
    const record = { ...told, way: waySchema.parse(withIds(told.way, incoming.ids)) };
    await bring(incoming, record, {
      kind: 'routines',
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
        return true;
      },
    });
  }
}
