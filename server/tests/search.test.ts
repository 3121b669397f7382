import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import * as countRoute from '@/app/api/shots/count/route';
import * as daysRoute from '@/app/api/shots/days/route';
import * as shotsRoute from '@/app/api/shots/route';
import { countSchema, daysSchema } from '@/core/contracts/search';
import { foundPageSchema } from '@/core/contracts/shot';
import { untouched } from '@/core/document/view';
import type { Mark } from '@/core/marks/registry';
import { everyMark } from '@/tests/lib/marks';
import { sql } from '../db/sql';
import { indexMissing } from '../indexing/indexing';
import { changeShot } from '../shots/change';
import { binShot, eraseShot, renameShot, storeShot } from '../shots/store';
import { setTags } from '../tags/tags';
import { putWords } from './words';
import { at, begin, finish, gradientPng, request } from './setup';

const SIZE = { width: 60, height: 40 };
let picture: Buffer;

interface Made {
  title: string;
  taken?: string;
  window?: string;
  words?: string;
  marks?: Mark[];
  description?: string;
  source?: 'desk' | 'camera';
}

async function make({ title, taken, window, words, marks = [], description, source }: Made) {
  const { id } = await storeShot({
    picture,
    title,
    document: { ...untouched(SIZE), marks, ...(description && { description }) },
    provenance: {
      source: source ?? 'desk',
      takenAt: taken ?? '2026-03-03T10:00:00Z',
      ...(window && { windowTitle: window }),
    },
  });
  if (words) await putWords(id, words);
  return id;
}

const ask = async (q: string, more = '') => {
  const answer = await shotsRoute.GET(
    request(`/api/shots?q=${encodeURIComponent(q)}${more}`),
    at({}),
  );
  expect(answer.status).toBe(200);
  return foundPageSchema.parse(await answer.json());
};
const titles = async (q: string, more = '') => (await ask(q, more)).shots.map((s) => s.title);
const count = async (q: string) =>
  countSchema.parse(
    await (
      await countRoute.GET(request(`/api/shots/count?q=${encodeURIComponent(q)}`), at({}))
    ).json(),
  );

beforeAll(async () => {
  await begin();
  picture = await gradientPng(SIZE.width, SIZE.height);
  await make({
    title: 'Order confirmation',
    window: 'Seed exchange',
    words: 'Order received\nSX-48-7713-KA sent to wren@fernhollow.example',
    taken: '2026-03-01T10:00:00Z',
  });
  await make({
    title: 'Sensor 14',
    window: 'Sensors',
    words: 'Sensor 14 is not responding (E-2O7).\nFrost cover may not close.',
    taken: '2026-03-02T10:00:00Z',
  });
  await make({
    title: 'Bed list',
    words: 'North bank responding now, not yesterday. Greenhouse 09:40',
    taken: '2026-03-03T10:00:00Z',
    description: 'All beds, seen from the path',
    marks: everyMark.filter(({ kind }) => kind === 'arrow'),
    source: 'camera',
  });
});
afterAll(finish);

describe('words', () => {
  test('all of them, wherever they stand, the last one while it is typed', async () => {
    expect(await titles('order ')).toEqual(['Order confirmation']);
    expect(await titles('sensor fros')).toEqual(['Sensor 14']);
    // Once it is a whole word, only within another one, which is said.
    expect(await ask('sensor fros ')).toMatchObject({ inside: true });
    expect(await titles('responding ')).toEqual(['Bed list', 'Sensor 14']);
  });
  test('a phrase only where it stands', async () => {
    expect(await titles('"not responding"')).toEqual(['Sensor 14']);
    expect(await titles('"responding not"')).toEqual([]);
    // Not from one place to the next.
    expect(await titles('"confirmation seed"')).toEqual([]);
  });
  test('without', async () => {
    expect(await titles('responding -frost')).toEqual(['Bed list']);
    expect(await titles('-responding')).toEqual(['Order confirmation']);
  });
  test.each([
    ['SX-48-7713-KA', 'Order confirmation'],
    ['sx-48', 'Order confirmation'],
    ['7713-ka', 'Order confirmation'],
    ['wren@fernhollow.example', 'Order confirmation'],
    ['fernhollow', 'Order confirmation'],
    ['E-207 ', 'Sensor 14'],
    ['09:40', 'Bed list'],
  ])('%s is found, whole and in parts, with a slip of recognition', async (code, title) => {
    expect(await titles(code)).toEqual([title]);
  });
  test('what stands within a word only where nothing else is found, and it is said', async () => {
    const page = await ask('house');
    expect(page).toMatchObject({ inside: true, shots: [{ title: 'Bed list' }] });
    expect(page.shots[0]?.found?.places).toEqual(['picture']);
    expect(await count('house')).toEqual({ count: 1, more: false });
    expect((await ask('north')).inside).toBeUndefined();
  });
  test('the reason and the boxes of what was found', async () => {
    const { shots } = await ask('"frost cover" sensor ');
    expect(shots[0]?.found?.places).toEqual(['title', 'picture']);
    expect(shots[0]?.found?.hits).toHaveLength(2);
  });
});

describe('fields', () => {
  test('where words stand', async () => {
    expect(await titles('window:sensors')).toEqual(['Sensor 14']);
    expect(await titles('title:responding')).toEqual([]);
    expect(await titles('description:path')).toEqual(['Bed list']);
  });
  test('from, with, size, dates', async () => {
    expect(await titles('from:cam')).toEqual(['Bed list']);
    expect(await titles('from:nowhere')).toEqual([]);
    expect(await titles('with:arrow')).toEqual(['Bed list']);
    expect(await titles('-with:arrow order ')).toEqual(['Order confirmation']);
    expect(await titles('size:60x40')).toHaveLength(3);
    expect(await titles('size:>61x40')).toEqual([]);
    expect(await titles('on:2026-03-02')).toEqual(['Sensor 14']);
    expect(await titles('since:2026-03-02 before:2026-03-03')).toEqual(['Sensor 14']);
    expect(await titles('between:2026-03-01..2026-03-02')).toEqual([
      'Sensor 14',
      'Order confirmation',
    ]);
    expect(await titles('kept:none')).toHaveLength(3);
  });
  test('tags, whatever their case and accents', async () => {
    const [shot] = (await ask('window:sensors')).shots;
    await setTags(shot?.id ?? '', ['Störung', 'North bank']);
    expect(await titles('tag:STORUNG')).toEqual(['Sensor 14']);
    expect(await titles('tag:"north bank"')).toEqual(['Sensor 14']);
    expect(await titles('tag:nor')).toEqual(['Sensor 14']);
    expect(await titles('tag:none')).toEqual(['Bed list', 'Order confirmation']);
    expect((await ask('störung ')).shots[0]?.found?.places).toEqual(['tag']);
    await setTags(shot?.id ?? '', []);
    expect(await titles('tag:storung')).toEqual([]);
  });
});

describe('help where nothing is found', () => {
  test('what to loosen, and a known word for a mistyped one', async () => {
    const { help, shots } = await ask('sensor frots ');
    expect(shots).toEqual([]);
    expect(help?.loosen).toEqual([1]);
    expect(help?.instead).toEqual([{ part: 1, typed: 'frots', word: 'frost' }]);
    expect((await ask('sensor -frost ')).help?.loosen).toEqual([0, 1]);
  });
});

describe('order and pages', () => {
  test('by fitness the title counts most; pages go on where the last one ended', async () => {
    expect(await titles('sensor ', '&order=fitness')).toEqual(['Sensor 14']);
    const ids = new Set<string>();
    for (let i = 0; i < 5; i += 1)
      await make({ title: `Leek ${i}`, words: i % 2 ? 'leek' : 'hoe' });
    for (const order of ['day', 'fitness']) {
      let before = '';
      ids.clear();
      for (let page = 0; page < 3; page += 1) {
        const answer = await ask('leek ', `&limit=2&order=${order}${before}`);
        for (const { id } of answer.shots) ids.add(id);
        before = `&before=${answer.next}`;
      }
      expect(ids.size).toBe(5);
    }
    expect(await count('leek ')).toEqual({ count: 5, more: false });
    // Also where words stand within others only.
    const first = await ask('eek ', '&limit=3');
    expect(first).toMatchObject({ inside: true });
    const second = await ask('eek ', `&limit=3&before=${first.next}`);
    expect([...first.shots, ...second.shots].map((s) => s.title)).toHaveLength(5);
  });
});

describe('what changes is found as it is then', () => {
  test('renamed, described, binned, erased', async () => {
    const id = await make({ title: 'Compost' });
    await renameShot(id, 'Manure');
    expect(await titles('compost ')).toEqual([]);
    expect(await titles('manure ')).toEqual(['Manure']);
    const document = { ...untouched(SIZE), description: 'Steaming heap' };
    await changeShot(id, { revision: 1, document });
    expect(await titles('steaming ')).toEqual(['Manure']);
    await binShot(id);
    expect(await titles('manure ')).toEqual([]);
    expect(await titles('manure ', '&bin=1')).toEqual(['Manure']);
    expect(await sql()`select 1 from known_words where word = 'steaming'`).toHaveLength(1);
    await eraseShot(id);
    expect(await titles('manure ', '&bin=1')).toEqual([]);
    // A word goes with the last shot that holds it.
    expect(await sql()`select 1 from known_words where word = 'steaming'`).toHaveLength(0);
  });
  test('shots from before there was a search are indexed at the start', async () => {
    const id = await make({ title: 'Scarecrow' });
    await sql()`delete from search where shot_id = ${id}`;
    expect(await titles('scarecrow ')).toEqual([]);
    await indexMissing();
    expect(await titles('scarecrow ')).toEqual(['Scarecrow']);
  });
  test('the days of a month that have shots', async () => {
    const answer = await daysRoute.GET(request('/api/shots/days?month=2026-03'), at({}));
    const { days } = daysSchema.parse(await answer.json());
    expect(days.find(({ day }) => day === '2026-03-02')).toEqual({ day: '2026-03-02', shots: 1 });
    const bad = await daysRoute.GET(request('/api/shots/days?month=2026-13'), at({}));
    expect(bad.status).toBe(400);
  });
});

describe('bad input', () => {
  test.each([
    '((',
    '"',
    '-"',
    "' or 1=1; drop table shots; --",
    '& | ! <-> :*',
    '%',
    '_ _',
    '\\',
    'tag:',
    'tag:"',
    '🌱',
    '\u202eשלום',
    'on:99999-99-99',
    'before:0001-01-01',
    'since:9999-12-31',
    'between:0001-01-01..9999-12-31',
    'size:99999x99999',
    'with:%',
    'kept:%',
  ])('%j is answered', answered);
  test('long ones are answered', async () => {
    for (const q of ['x'.repeat(10_000), 'a '.repeat(5_000), 'o'.repeat(900), 'o0 '.repeat(300)])
      await answered(q);
  });
  async function answered(q: string) {
    expect((await ask(q)).shots.length).toBeLessThan(200);
    await ask(q, '&order=fitness');
    await count(q);
  }
  test.each([
    ['q=x&before=nowhere', 400],
    ['q=x&order=fitness&before=1', 400],
    ['q=x&order=fitness&before=x_2026-03-03T00:00:00Z_1', 400],
    ['q=%00', 400],
    ['q=x&order=size', 400],
  ])('%s', async (query, status) => {
    const answer = await shotsRoute.GET(request(`/api/shots?${query}`), at({}));
    expect(answer.status).toBe(status);
  });
  test('a query that is far too long', async () => {
    const answer = await shotsRoute.GET(request(`/api/shots?q=${'x'.repeat(10_001)}`), at({}));
    expect(answer.status).toBe(400);
  });
});
