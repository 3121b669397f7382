import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { unlink } from 'node:fs/promises';
import sharp from 'sharp';
import { z } from 'zod';
import { untouched } from '@/core/document/view';
import { firstWay } from '@/core/contracts/way';
import { json, sql } from '../db/sql';
import { addFolder } from '../folders/folders';
import { addGuide } from '../guides/guides';
import { keepGuide } from '../guides/keep';
import { keepCopy } from '../keep/copies';
import { indexShot } from '../indexing/indexing';
import { addLook } from '../looks/looks';
import { addRoutine } from '../routines/routines';
import { addSearch } from '../search/saved';
import { changeSettings } from '../settings/settings';
import { changeShot, getSteps } from '../shots/change';
import { getShot } from '../shots/rows';
import { binShot, duplicateShot, eraseShot, renameShot, storeShot } from '../shots/store';
import { removeTag, setTags } from '../tags/tags';
import { packWords } from '../words/rows';
import { archived, broughtIn, everything, otherDatabase, reportOf, useDatabase } from './archived';
import { number, run } from './seeds';
import { begin, finish, gradientPng, testFolder } from './setup';

const SIZE = { width: 120, height: 80 };
const names: Record<string, string> = {};
let home = '';
let file = '';

/** Of everything that can be in an archive, at least one. */
async function fill(): Promise<void> {
  const picture = await gradientPng(SIZE.width, SIZE.height);
  const form = await storeShot({ picture, title: 'Order form' });
  await changeShot(form.id, {
    revision: 1,
    document: {
      ...untouched(SIZE),
      marks: [number('a', 'The number', { x: 30, y: 30 })],
      description: 'A form with two buttons',
    },
  });
  const again = await duplicateShot(form.id, {});
  const opened = await storeShot({
    picture: await sharp(picture).jpeg().toBuffer(),
    title: 'Seed list',
  });
  const binned = await storeShot({ picture: await gradientPng(60, 40), title: 'Old beds' });
  await binShot(binned.id);
  await setTags(form.id, ['orders', 'seeds']);
  await setTags(opened.id, ['seeds']);
  const { lines, boxes } = packWords([
    [[{ text: 'Bohnen', box: { x: 1, y: 2, width: 30, height: 9 } }]],
  ]);
  await sql()`update words set revision = 2, lines = ${lines}, boxes = ${boxes}
    where shot_id = ${form.id}`;
  await sql().begin((tx) => indexShot(tx, form.id));
  await sql()`update jobs set state = 'done' where id = ${form.id}`;
  const folder = await addFolder({
    name: 'Orders',
    path: testFolder('archived'),
    pattern: '{title} {n}',
  });
  await keepCopy(form.id, { folderId: folder.id });
  await addLook({
    name: 'Frame',
    key: 'Alt+F',
    finish: { surround: { border: { width: 3, colour: '#15302A', corners: 0 } } },
  });
  const way = { ...firstWay, then: [{ do: 'keep' as const, folderId: folder.id }] };
  await addRoutine({ name: 'To orders', key: 'Alt+O', systemKey: null, way });
  await addSearch({ name: 'Seeds', query: 'tag:seeds ', order: 'day' });
  const guide = await addGuide({ title: 'Ordering', shots: [form.id, opened.id] });
  await keepGuide(guide.id, { folderId: folder.id, formats: ['html'] });
  await changeSettings({ smallCards: true, way: { delay: 3 }, displayAllowed: true });
  await sql()`insert into remotes (id, name, url, username, password, sealed, format, quality, facts, pattern)
    values (gen_random_uuid(), 'Garden', 'https://garden.example/dav/', 'mia', 'sealed-secret-word',
      true, 'png', 85, ${json({ words: true, origin: false })}, '{title}')`;
  await sql()`with job as (insert into jobs (id, kind, state, done_at)
      values (gen_random_uuid(), 'send', 'done', now()) returning id)
    insert into sendings (id, shot_id, remote_id, name, media_type, size)
    select job.id, ${form.id}, r.id, 'Order form.png', 'image/png', 812 from job, remotes r`;
  await sql()`insert into pattern_numbers values ('{title} {n}', 7)`;
  await sql()`insert into links (id, shot_id, token, bytes, width, height, title, description)
    values (gen_random_uuid(), ${form.id}, 'token-that-lets-in', '', 1, 1, 'x', '')`;
  Object.assign(names, { form: form.id, again: again.id, opened: opened.id, binned: binned.id });
}

beforeAll(async () => {
  await begin();
  await fill();
  file = await archived();
});
afterAll(async () => {
  await finish();
});

const shots = async (): Promise<number> =>
  (await sql()<{ n: number }[]>`select count(*)::int as n from shots`)[0]?.n ?? 0;

test('another maker’s program lists and tests the archive; each entry is what the manifest says', async () => {
  const { stdout } = await run('unzip', ['-t', file]);
  expect(stdout).toContain('No errors detected');
  const listed = (await run('unzip', ['-Z1', file])).stdout.trim().split('\n');
  expect(listed[0]).toBe('about.json');
  expect(listed.at(-1)).toBe('manifest.jsonl');
  const manifest = (await run('unzip', ['-p', file, 'manifest.jsonl'])).stdout.trim().split('\n');
  const lines = manifest.map((line) =>
    z.object({ name: z.string(), bytes: z.int(), sha256: z.string() }).parse(JSON.parse(line)),
  );
  expect(lines.map(({ name }) => name)).toEqual(listed.slice(0, -1));
  for (const { name, bytes, sha256 } of lines) {
    const entry = await run('unzip', ['-p', file, name], { encoding: 'buffer' });
    expect(entry.stdout).toHaveLength(bytes);
    // FIPS 180-4, by Node's own.
    expect(createHash('sha256').update(entry.stdout).digest('hex')).toBe(sha256);
  }
  // One frame for the shot and its double.
  expect(listed.filter((name) => name.endsWith('.png'))).toHaveLength(3);
});

test('no password, token or list of programs is in it', async () => {
  const { stdout } = await run('unzip', ['-p', file], { encoding: 'latin1', maxBuffer: 1e8 });
  expect(stdout).toContain('https://garden.example/dav/');
  for (const secret of ['sealed-secret-word', 'token-that-lets-in', 'xdg-open']) {
    expect(stdout).not.toContain(secret);
  }
});

test('out and in again into an empty Rezzik, both databases hold the same', async () => {
  const before = await everything();
  home = await otherDatabase();
  const report = await broughtIn(file);
  expect(report.damaged).toEqual([]);
  expect(report.told).toEqual([]);
  expect(report.brought).toMatchObject({
    shots: { added: 4, here: 0, beside: 0 },
    guides: { added: 1 },
    looks: { added: 1, here: 6 },
  });
  const after = await everything();
  // Reading the screen is allowed on each computer anew.
  const settings = { smallCards: true, way: { delay: 3 } };
  expect(JSON.parse(after.settings?.[0] ?? '')).toEqual({ value: settings });
  expect({ ...after, settings: before.settings }).toEqual(before);
});

test('the same once more doubles nothing', async () => {
  const before = await everything();
  const report = await broughtIn(file);
  expect(report.brought?.shots).toEqual({ added: 0, here: 4, beside: 0 });
  for (const counts of Object.values(report.brought ?? {})) {
    expect(counts).toMatchObject({ added: 0, beside: 0 });
  }
  expect(await everything()).toEqual(before);
});

test('what came in does nothing before it is confirmed', async () => {
  const [folder] = await sql()<{ id: string }[]>`select id from folders`;
  await expect(keepCopy(names.form ?? '', { folderId: folder?.id ?? '' })).rejects.toThrow(
    /not? .*confirmed|before it is confirmed/,
  );
  const rows = await sql()<{ unconfirmed: boolean }[]>`select unconfirmed from folders
    union all select unconfirmed from remotes union all select unconfirmed from routines`;
  expect(rows).toEqual([{ unconfirmed: true }, { unconfirmed: true }, { unconfirmed: true }]);
});

test('a shot that was drawn on here since is left; one that was drawn on otherwise is kept beside', async () => {
  const [form = '', opened = ''] = [names.form, names.opened];
  const here = await getShot(form);
  const marks = [...here.document.marks, number('b', 'more', { x: 60, y: 50 })];
  await changeShot(form, { revision: here.revision, document: { ...here.document, marks } });
  await renameShot(opened, 'Bean list');
  // Its history is gone: nothing leads back to what is in the archive.
  await sql()`update shots set document = jsonb_set(document, '{description}', '"Another"')
    where id = ${names.again ?? ''}`;
  await sql()`delete from steps where shot_id = ${names.again ?? ''}`;
  const report = await broughtIn(file);
  expect(report.brought?.shots).toEqual({ added: 0, here: 3, beside: 1 });
  expect(report.told).toEqual(
    expect.arrayContaining([
      '“Bean list” is called “Seed list” in the archive.',
      '“Order form (2)” was changed here and in the archive; both are kept.',
    ]),
  );
  expect((await getShot(form)).document.marks).toHaveLength(2);
  expect(await shots()).toBe(5);
  const again = await broughtIn(file);
  expect(again.brought?.shots).toEqual({ added: 0, here: 4, beside: 0 });
  expect(await shots()).toBe(5);
  // A later archive of the same, kept and binned meanwhile, brings nothing more.
  const first = await useDatabase(home);
  await sql()`update shots set title = 'Another name', binned_at = now(), changed_at = now()
    where id = ${names.again ?? ''}`;
  const later = await archived();
  await useDatabase(first);
  const { brought } = await broughtIn(later);
  expect(brought?.shots).toMatchObject({ added: 0, beside: 0 });
  expect(await shots()).toBe(5);
});

test('what was deleted for good here comes back, with a tag of the same name that is another one', async () => {
  await removeTag(
    (await sql()<{ id: string }[]>`select id from tags where name = 'seeds'`)[0]?.id ?? '',
  );
  await setTags(names.form ?? '', ['Seeds']);
  await binShot(names.opened ?? '');
  await eraseShot(names.opened ?? '');
  const report = await broughtIn(file);
  expect(report.brought?.shots).toMatchObject({ added: 1 });
  const tags = await sql()<{ name: string }[]>`select t.name from shot_tags st
    join tags t on t.id = st.tag_id where st.shot_id = ${names.opened ?? ''}`;
  expect(tags).toEqual([{ name: 'Seeds' }]);
});

test('only what a search matches: its shots, their pictures and tags, and nothing else', async () => {
  const only = await archived('tag:seeds order');
  const listed = (await run('unzip', ['-Z1', only])).stdout.trim().split('\n');
  const kinds = listed.map((name) => name.split('/')[0]);
  expect(kinds).toEqual(['about.json', 'tags.json', 'frames', 'frames', 'shots', 'manifest.jsonl']);
  const shot = z
    .object({ copies: z.array(z.json()), sent: z.array(z.json()) })
    .parse(JSON.parse((await run('unzip', ['-p', only, 'shots/*'])).stdout));
  expect(shot).toEqual({ copies: [], sent: [] });
  const empty = await archived('tag:nobody');
  expect((await run('unzip', ['-Z1', empty])).stdout).not.toContain('shots/');
  await unlink(empty);
});

test('cut off in the middle, what came in stays, and it goes on from there', async () => {
  await otherDatabase();
  const { bringIn } = await import('../archive/bring');
  const control = new AbortController();
  const cut = bringIn(file, (done) => done === 2 && control.abort(), control.signal);
  await expect(cut).rejects.toThrow(/abort/i);
  const some = await shots();
  expect(some).toBeGreaterThanOrEqual(2);
  expect(some).toBeLessThan(4);
  const report = await broughtIn(file);
  expect(report.brought?.shots).toEqual({ added: 4 - some, here: some, beside: 0 });
});

test('what is odd among what is stored is told, and keeps nothing else out of an archive', async () => {
  await otherDatabase();
  const picture = await gradientPng(SIZE.width, SIZE.height);
  const [sound, odd, long] = [
    (await storeShot({ picture, title: 'Sound' })).id,
    (await storeShot({ picture, title: 'Odd' })).id,
    (await storeShot({ picture, title: 'Long' })).id,
  ];
  await sql()`update shots set provenance = '{"source": "nowhere"}' where id = ${odd}`;
  // Two steps of sixty megabytes.
  await sql()`insert into steps (shot_id, position, step) select ${long}, i,
    jsonb_build_object('version', 4, 'label', repeat('x', 60000000)) from generate_series(0, 1) i`;
  await sql()`insert into routines (id, name, way, position)
    values (gen_random_uuid(), 'Odd', '{"kind": "nothing"}', 1)`;
  const path = await archived();
  const { shots: written, damaged } = await reportOf(path);
  expect(written).toBe(2);
  expect(damaged.map(({ entry }) => entry).sort()).toEqual(
    ['routines.json', `shots/${long}.json`, `shots/${odd}.json`].sort(),
  );
  await otherDatabase();
  const { brought, damaged: none } = await broughtIn(path);
  expect(none).toEqual([]);
  expect(brought?.shots).toEqual({ added: 2, here: 0, beside: 0 });
  expect((await getShot(sound)).title).toBe('Sound');
  expect((await getSteps(long)).steps).toEqual([]);
});
