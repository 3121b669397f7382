import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

jest.setTimeout(120_000);

const data = mkdtempSync(join(tmpdir(), 'rezzik-carried-'));
const cluster = join(data, 'postgres');
const versionFile = join(cluster, 'PG_VERSION');

/** What a program of Node says, with the parts of bin/ that it needs. */
function node(program: string): { code: number | null; said: string } {
  const lib = (name: string) => JSON.stringify(resolve(`bin/lib/${name}.mjs`));
  const head = `
    const { startDatabase } = await import(${lib('database')});
    const { carryOver } = await import(${lib('carryOver')});
    const { postgresFolders } = await import(${lib('packages')});
    const { Stop } = await import(${lib('say')});
    const { run } = await import(${lib('run')});
    const data = ${JSON.stringify(data)};
    const [here] = postgresFolders();
    const ask = async (url, query) =>
      (await run(here.bin + '/psql', ['-d', url, '-At', '-c', query])).output.trim();`;
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['--input-type=module', '-e', `${head}\n${program}`],
    { encoding: 'utf8' },
  );
  return { code: status, said: stdout + stderr };
}

beforeAll(() => {
  chmodSync(data, 0o755);
  const made = node(`
    const database = await startDatabase(data);
    await ask(database.url, "create table frames (id integer primary key, bytes bytea)");
    await ask(database.url, "insert into frames select i, decode(repeat(md5(i::text), 99), 'hex') from generate_series(1, 500) i");
    await database.stop();`);
  expect(made).toEqual({ code: 0, said: expect.stringContaining('Making the database') });
});
afterAll(() => rmSync(data, { recursive: true }));

test('carried over: the same rows in a new cluster, the old one kept as it was', () => {
  const { said, code } = node(`
    console.log('aside ' + await carryOver(data, here, here));
    const database = await startDatabase(data);
    console.log(await ask(database.url, "select count(*) || ' ' || max(bytes = decode(repeat(md5(id::text), 99), 'hex')::bytea)::text from (select id, bytes from frames) f".replace('max(', 'bool_and(')));
    await database.stop();`);
  expect(said).toContain('500 true');
  expect(code).toBe(0);
  const aside = /aside (\S+)/.exec(said)?.[1] ?? '';
  expect(existsSync(join(aside, 'PG_VERSION'))).toBe(true);
  expect(readdirSync(data).filter((name) => name.includes('carried'))).toEqual([]);
});

test('where it fails in the middle, the database is as it was', () => {
  const { said } = node(`
    await carryOver(data, here, { ...here, bin: '/nowhere' }).catch((error) => console.log(error.message));
    const database = await startDatabase(data);
    console.log(await ask(database.url, 'select count(*) from frames'));
    await database.stop();`);
  expect(said).toMatch(/The database is as it was\.[\s\S]*\n500/);
});

test('a version that is not installed is said with the one command, and nothing is changed', () => {
  const version = readFileSync(versionFile, 'utf8');
  writeFileSync(versionFile, '9\n');
  const { said } = node(`await startDatabase(data).catch((error) => console.log(error.message));`);
  expect(said).toContain('apt-get install postgresql-9 && npm run carry-over');
  const { stderr, status } = spawnSync(process.execPath, ['bin/carryOver.mjs'], {
    env: { ...process.env, REZZIK_DATA: data, DATABASE_URL: '' },
    encoding: 'utf8',
  });
  expect(stderr).toContain('PostgreSQL 9 is needed once more');
  expect(status).toBe(1);
  writeFileSync(versionFile, version);
  const newest = spawnSync(process.execPath, ['bin/carryOver.mjs'], {
    env: { ...process.env, REZZIK_DATA: data, DATABASE_URL: '' },
    encoding: 'utf8',
  });
  expect(newest.stdout).toContain('the newest here');
});
