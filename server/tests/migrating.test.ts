import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtemp, readdir, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { changedTables, dropBefore } from '../db/before';
import { migrate } from '../db/migrate';
import { sql } from '../db/sql';
import { begin, finish } from './setup';

let folder = '';

beforeAll(async () => {
  await begin();
  folder = await mkdtemp(join(tmpdir(), 'rezzik-migrations-'));
  for (const name of await readdir('migrations')) {
    await writeFile(join(folder, name), await readFile(join('migrations', name)));
  }
});
afterAll(finish);

const kept = async (): Promise<string[]> => {
  const rows = await sql()<{ name: string }[]>`select table_name as name
    from information_schema.tables where table_schema = 'before_migration' order by 1`;
  return rows.map(({ name }) => name);
};

test('which tables a migration changes is read from what stands in it', async () => {
  const text = `-- alter table comments add column x integer;
    create table fresh (id integer); alter table fresh add column y integer;
    ALTER TABLE only shots add column z text default 'update frames set';
    update folders set name = ''; delete from "copies" where true; drop table if exists links cascade;
    create index i on frames (id);`;
  expect(changedTables(text)).toEqual(['copies', 'folders', 'links', 'shots']);
  const changes = async (name: string) =>
    changedTables(await readFile(`migrations/${name}`, 'utf8'));
  expect(await changes('007-names-and-settings.sql')).toEqual(['copies', 'settings', 'shots']);
  expect(await changes('013-archives.sql')).toEqual(['folders', 'remotes', 'routines']);
});

test('what a migration changes is kept as it was until a start went well', async () => {
  await sql()`insert into searches (id, name, query, order_by, position)
    values (gen_random_uuid(), 'Seeds', 'tag:seeds', 'day', 1)`;
  await writeFile(
    join(folder, '900-first.sql'),
    `update searches set name = 'lost'; alter table guides add column odd integer;`,
  );
  await writeFile(join(folder, '901-second.sql'), `delete from searches;`);
  expect(await migrate(folder)).toEqual(['900-first.sql', '901-second.sql']);
  // Empty tables have nothing to be kept.
  expect(await kept()).toEqual(['searches']);
  const rows = await sql()`select name, query from before_migration.searches`;
  expect(rows.map((row) => ({ ...row }))).toEqual([{ name: 'Seeds', query: 'tag:seeds' }]);
  await dropBefore(sql());
  expect(await kept()).toEqual([]);
  await dropBefore(sql());
});

test('a migration that fails changes nothing and leaves no copy', async () => {
  await sql()`insert into searches (id, name, query, order_by, position)
    values (gen_random_uuid(), 'Beds', 'bed', 'day', 1)`;
  await writeFile(join(folder, '902-third.sql'), `update searches set name = 'x'; select 1 / 0;`);
  await expect(migrate(folder)).rejects.toThrow(/division by zero/);
  expect(await kept()).toEqual([]);
  const rows = await sql()`select name from searches`;
  expect(rows.map(({ name }) => String(name))).toEqual(['Beds']);
});
