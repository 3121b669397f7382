import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { untouched } from '@/core/document/view';
import type { Report } from '@/core/contracts/archive';
import { sql } from '../db/sql';
import { sha256 } from '../frames/intake';
import { about, archived, broughtIn, somewhere, zipOf, type Entry } from './archived';
import { begin, finish, gradientPng, testFolder } from './setup';

beforeAll(begin);
afterAll(async () => {
  await finish();
});

const SIZE = { width: 20, height: 10 };
const json = (name: string, value: unknown): Entry => ({
  name,
  bytes: Buffer.from(JSON.stringify(value)),
});
const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** A sound shot with its frame. */
async function shot(n: number, more: object = {}): Promise<[Entry, Entry]> {
  const bytes = await gradientPng(SIZE.width, SIZE.height + n);
  const frame = {
    ...{ id: id(1000 + n), sha256: sha256(bytes), original: null },
    ...{ width: SIZE.width, height: SIZE.height + n },
  };
  const record = {
    ...{ id: id(n), title: `Shot ${n}`, titleOwn: true, revision: 1, steps: [], position: 0 },
    document: untouched(frame),
    provenance: { source: 'api', takenAt: '2026-11-20T10:00:00Z' },
    ...{ takenAt: '2026-11-20T10:00:00Z', changedAt: '2026-11-20T10:00:00Z', binnedAt: null },
    ...{ frame, tags: [], words: null, copies: [], sent: [] },
    ...more,
  };
  return [{ name: `frames/${frame.id}.png`, bytes }, json(`shots/${id(n)}.json`, record)];
}

const count = async (): Promise<number> =>
  (await sql()<{ n: number }[]>`select count(*)::int as n from shots`)[0]?.n ?? 0;

/** Brings in a sound shot beside what is odd, and says what was told of that. */
async function oddBeside(n: number, odd: readonly Entry[]): Promise<Report['damaged']> {
  const before = await count();
  const report = await broughtIn(await zipOf([about(), ...(await shot(n)), ...odd]));
  expect(report.brought?.shots).toMatchObject({ added: 1 });
  expect(await count()).toBe(before + 1);
  return report.damaged;
}

async function refusal(path: string): Promise<string> {
  const before = await count();
  const said = await broughtIn(path).then(
    () => 'nothing was refused',
    (error: unknown) => (error instanceof Error ? error.message : ''),
  );
  expect(said).toMatch(/Nothing was brought in\.$/);
  expect(await count()).toBe(before);
  return said;
}

/** The zip with some of its bytes changed. */
async function spoiled(path: string, change: (bytes: Buffer) => Buffer): Promise<string> {
  const to = await somewhere();
  await writeFile(to, change(await readFile(path)));
  return to;
}

describe('a file that is refused as a whole, in words', () => {
  test('no zip, an empty file, a foreign zip, one that only says it is an archive', async () => {
    const plain = await somewhere();
    await writeFile(plain, 'Not a zip at all');
    expect(await refusal(plain)).toMatch(/no zip file, or it is cut short/);
    await writeFile(plain, '');
    expect(await refusal(plain)).toMatch(/no zip file, or it is cut short/);
    const foreign = await zipOf([{ name: 'a.txt', bytes: Buffer.from('x') }], false);
    expect(await refusal(foreign)).toMatch(/no archive of Rezzik/);
    const liar = await zipOf([json('about.json', { archive: 'Other', version: 1 })]);
    expect(await refusal(liar)).toMatch(/no archive of Rezzik/);
  });

  test('one that is cut short, wherever', async () => {
    const whole = await archived();
    const { length } = await readFile(whole);
    for (const share of [0.2, 0.6, 0.95]) {
      const cut = await spoiled(whole, (bytes) => bytes.subarray(0, Math.floor(length * share)));
      expect(await refusal(cut)).toMatch(/cut short/);
    }
  });

  test('one of a newer Rezzik', async () => {
    const newer = await zipOf([about({ version: 2, more: 'unknown' })]);
    expect(await refusal(newer)).toMatch(
      /newer Rezzik \(version 2\); this one reads up to version 1/,
    );
  });

  test('names that lead out, links, names that are there twice', async () => {
    const as = (name: string) => (bytes: Buffer) =>
      Buffer.from(bytes.toString('latin1').replaceAll('shots/evil.json', name), 'latin1');
    const evil = await zipOf([about(), { name: 'shots/evil.json', bytes: Buffer.from('{}') }]);
    for (const name of [
      '../../evil.json',
      '/hots/evil.json',
      'C:/ots/evil.jso',
      'aa\\..\\evil.json',
    ]) {
      expect(name).toHaveLength('shots/evil.json'.length);
      expect(await refusal(await spoiled(evil, as(name)))).toMatch(/leads out of it/);
    }
    const link = { name: 'shots/link.json', bytes: Buffer.from('/etc/passwd'), mode: 0o120777 };
    expect(await refusal(await zipOf([about(), link]))).toMatch(/is a link/);
    const double = await zipOf([
      about(),
      ...(await shot(1)),
      json('TAGS.json', []),
      json('tags.json', []),
    ]);
    expect(await refusal(double)).toMatch(/two entries called “tags\.json”/);
  });

  test('entries that lie over each other', async () => {
    const [frame, record] = await shot(2);
    const path = await zipOf([about(), frame, record]);
    // The second entry of the directory is said to begin where the first one does (APPNOTE, 4.3.12).
    const over = await spoiled(path, (bytes) => {
      const first = bytes.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
      const second = bytes.indexOf(Buffer.from([0x50, 0x4b, 1, 2]), first + 4);
      bytes.writeUInt32LE(bytes.readUInt32LE(first + 42), second + 42);
      return bytes;
    });
    expect(await refusal(over)).toMatch(/lie over each other/);
  });
});

describe('what is wrong with one entry is told, and the rest comes in', () => {
  test('another byte than the manifest says, a wrong checksum', async () => {
    const [frame, record] = await shot(11);
    const odd = { ...record, told: { sha256: '0'.repeat(64) } };
    expect(await oddBeside(10, [frame, odd])).toEqual([
      { entry: record.name, why: 'it is not what the manifest says (SHA-256)' },
    ]);
    const path = await zipOf([about(), ...(await shot(12)), ...(await shot(13))]);
    const flipped = await spoiled(path, (bytes) => {
      const at = bytes.indexOf('"Shot 13"');
      bytes[at + 1] = (bytes[at + 1] ?? 0) ^ 1;
      return bytes;
    });
    const report = await broughtIn(flipped);
    expect(report.damaged).toEqual([
      { entry: `shots/${id(13)}.json`, why: 'its checksum (CRC-32) is wrong' },
    ]);
    expect(report.brought?.shots).toMatchObject({ added: 1 });
  });

  test('one that the manifest does not name, one that is not there, one larger than it says', async () => {
    const [frame, record] = await shot(15);
    expect(await oddBeside(14, [frame, { ...record, told: null }])).toEqual([
      { entry: record.name, why: 'the manifest does not name it' },
    ]);
    const big = { ...record, told: { bytes: 5 } };
    expect(await oddBeside(16, [frame, big])).toEqual([
      { entry: record.name, why: 'it is not as long as the manifest says' },
    ]);
    const bomb = { ...json('tags.json', []), told: { bytes: 9_000_000_000 } };
    expect(await oddBeside(17, [bomb])).toEqual([
      { entry: 'tags.json', why: 'it is larger than anything of its kind' },
    ]);
    expect(await oddBeside(18, [{ name: 'notes/hello.txt', bytes: Buffer.from('hello') }])).toEqual(
      [
        { entry: 'manifest.jsonl, line 4', why: '“notes/hello.txt” is no entry of an archive' },
        { entry: 'notes/hello.txt', why: 'the manifest does not name it' },
      ],
    );
  });

  test('a picture that is none, another one, of another size, or missing', async () => {
    const picture = async (n: number, bytes: Buffer) => {
      const [frame, record] = await shot(n, {
        frame: { ...{ id: id(1000 + n), original: null, sha256: sha256(bytes) }, ...SIZE },
        document: untouched(SIZE),
      });
      return [{ ...frame, bytes }, record];
    };
    const [none] = await oddBeside(20, await picture(21, Buffer.from('no picture')));
    expect(none?.why).toMatch(/not a picture/);
    const [size] = await oddBeside(22, await picture(23, await gradientPng(7, 7)));
    expect(size?.why).toMatch(/has another size/);
    const [, record] = await shot(25);
    const [missing] = await oddBeside(24, [record]);
    expect(missing).toMatchObject({ entry: record.name });
    expect(missing?.why).toMatch(/another one|not in the archive/);
    const [frame27, record27] = await shot(27);
    const [other] = await oddBeside(26, [{ ...frame27, bytes: await gradientPng(9, 9) }, record27]);
    expect(other?.why).toMatch(/is another one/);
  });

  test('marks of a newer Rezzik, marks that do not fit, steps of undo that lead nowhere', async () => {
    const newer = await shot(31, { document: { version: 99, marks: [] } });
    expect((await oddBeside(30, newer))[0]?.why).toMatch(/newer Rezzik/);
    const beyond = await shot(33, { document: untouched({ width: 500, height: 500 }) });
    expect((await oddBeside(32, beyond))[0]?.why).toMatch(/beyond the frame/);
    const steps = await broughtIn(
      await zipOf([about(), ...(await shot(34, { steps: [{ odd: true }], position: 1 }))]),
    );
    expect(steps.brought?.shots).toMatchObject({ added: 1 });
    expect(steps.damaged[0]?.why).toMatch(/comes in without them/);
  });

  test('two shots that come in with one frame share it here', async () => {
    const [frame, record] = await shot(40);
    const [, other] = await shot(40, { id: id(41) });
    const report = await broughtIn(
      await zipOf([about(), frame, record, { ...other, name: `shots/${id(41)}.json` }]),
    );
    expect(report.damaged).toEqual([]);
    const frames = await sql()<{ frameId: string }[]>`
      select distinct frame_id from shots where id = any(${[id(40), id(41)]}::uuid[])`;
    expect(frames).toHaveLength(1);
  });
});

const folder = {
  ...{ id: id(50), name: 'System', path: '/etc', format: 'png', quality: 85, options: {} },
  ...{ size: {}, maxBytes: null, facts: { words: true, origin: false }, pattern: '{title}' },
  ...{ look: null, numberBy: 'folder', isDefault: true, nextNumber: 1 },
};
const remote = {
  ...{ id: id(60), name: 'Garden', url: 'https://garden.example/dav/', username: '', address: '' },
  ...{ format: 'png', quality: 85, options: {}, size: {}, maxBytes: null, look: null },
  ...{ facts: { words: true, origin: false }, pattern: '{title}' },
};

test('one unsound record of a list leaves the others; no place or address is anything else', async () => {
  const script = 'javascript:alert(1)//{name}';
  const report = await broughtIn(
    await zipOf([
      about(),
      json('folders.json', [
        { ...folder, id: id(51), path: '--help' },
        { ...folder, id: id(52) },
      ]),
      json('remotes.json', [
        { ...remote, id: id(61), address: script },
        { ...remote, id: id(62), url: 'file:///etc/passwd' },
        remote,
      ]),
      json('tags.json', 'no list'),
      json('settings.json', { smallCards: 'yes', sound: true, odd: 1 }),
    ]),
  );
  expect(report.brought).toEqual({
    folders: { added: 1, here: 0, beside: 0 },
    remotes: { added: 1, here: 0, beside: 0 },
  });
  expect(report.damaged.map(({ entry, why }) => `${entry} ${why.replace(/:.*/s, '')}`)).toEqual([
    'folders.json number 1 is left out',
    'remotes.json number 1 is left out',
    'remotes.json number 2 is left out',
    'tags.json Invalid input',
    'settings.json “smallCards” cannot be read by this Rezzik',
    'settings.json “odd” cannot be read by this Rezzik',
  ]);
  await sql()`delete from folders`;
});

test('a copy is known where its file lies or is gone, not where something else lies', async () => {
  const place = testFolder('archived-copies');
  const bytes = Buffer.from('a copy');
  const copy = (n: number, name: string, more: object = {}) => ({
    ...{ id: id(7000 + n), folder: null, path: join(place, name), format: 'png' },
    ...{
      bytes: bytes.length,
      sha256: sha256(bytes),
      named: 'Shot 70',
      keptAt: '2026-11-20T10:00:00Z',
    },
    ...more,
  });
  await writeFile(join(place, 'here.png'), bytes);
  await writeFile(join(place, 'other.png'), 'not it');
  execFileSync('mkfifo', [join(place, 'pipe.png')]);
  const copies = [
    copy(1, 'here.png'),
    copy(2, 'gone.png'),
    copy(3, 'other.png'),
    copy(4, 'pipe.png', { bytes: 0 }),
    copy(5, '../..', {}),
  ];
  const report = await broughtIn(await zipOf([about(), ...(await shot(70, { copies }))]));
  expect(report.damaged).toEqual([]);
  const rows = await sql()<{ path: string; named: string | null }[]>`
    select path, named from copies where shot_id = ${id(70)} order by path`;
  expect(rows.map((row) => ({ ...row }))).toEqual([
    { path: join(place, 'gone.png'), named: null },
    { path: join(place, 'here.png'), named: 'Shot 70' },
  ]);
});

test('a folder outside the roots comes in, and cannot be confirmed', async () => {
  await broughtIn(await zipOf([about(), json('folders.json', [folder])]));
  const { changeFolder, getFolder } = await import('../folders/folders');
  expect((await getFolder(id(50))).problem).toMatch(/came in with an archive/);
  await expect(changeFolder(id(50), { confirmed: true })).rejects.toThrow(/outside/);
  expect((await getFolder(id(50))).unconfirmed).toBe(true);
});
