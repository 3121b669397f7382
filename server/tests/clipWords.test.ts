import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { GET as words } from '@/app/api/shots/[id]/words/route';
import { wordsSchema } from '@/core/contracts/search';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { findShots } from '../search/find';
import { changeShot } from '../shots/change';
import { filmOf } from './clipFilms';
import { look, recorded } from './clipLib';
import { at, begin, finish, request } from './setup';
import { readAll, SCREEN, screenPixels } from './words';
import '../reading/reading';

beforeAll(begin, 60_000);
afterAll(finish);

const several = (...lines: string[]): Buffer[] =>
  Array.from({ length: 30 }, () => screenPixels(...lines));
const found = async (q: string) =>
  (await findShots({ q, order: 'day', limit: 50, bin: false })).shots;
const wordsOf = async (id: string) =>
  wordsSchema.parse(await (await words(request('/x'), at({ id }))).json());
/** Over the second line, from its second second on. */
const cover = markSchema.parse({
  ...{ id: 'h', kind: 'cover', area: 'box', colour: '#000000', time: { from: 30, to: 90 } },
  ...{ x: 0, y: 34, width: SCREEN.width, height: 34 },
});

test('a clip is found by words of its later pictures, at the moment they stand on, and not by hidden ones', async () => {
  const pictures = [
    ...several('Order received'),
    ...several('Order received', 'Secret orchid 4711'),
    ...several('Order received', 'Frost cover'),
  ];
  const { id } = await recorded(filmOf(pictures, SCREEN), { title: 'Seeds' });
  await readAll();
  expect(await found('order')).toMatchObject([{ id, found: { places: ['picture'] } }]);
  expect((await found('order'))[0]?.found).not.toHaveProperty('moment');
  // The last picture before the next change.
  const [orchid] = await found('"secret orchid"');
  expect(orchid).toMatchObject({ id, found: { places: ['picture'], hits: [] } });
  expect(orchid?.found?.moment).toBeCloseTo(59 / 15, 2);
  expect((await found('frost'))[0]?.found?.moment).toBeCloseTo(89 / 15, 2);
  const { words: first, later } = await wordsOf(id);
  expect(first.map(({ text }) => text)).toEqual(['Order', 'received']);
  // What stood before is not said again.
  expect(later?.map(({ lines }) => lines)).toEqual(['Secret orchid 4711', 'Frost cover']);

  const { told } = await look(id);
  const document = { ...untouched(SCREEN), marks: [cover] };
  await changeShot(id, { revision: told?.state === 'ready' ? told.marksRevision : 0, document });
  // Forgotten at once, before it is read again.
  expect(await found('orchid')).toEqual([]);
  await readAll();
  expect(await found('orchid')).toEqual([]);
  expect(await found('frost')).toEqual([]);
  expect(await found('order')).toHaveLength(1);
}, 90_000);
