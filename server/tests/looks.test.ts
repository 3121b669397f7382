import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { lookInputSchema } from '@/core/contracts/look';
import { undo } from '@/core/document/history';
import { parts } from '@/core/finish/surround/surround';
import { firstWay } from '@/core/contracts/way';
import { addFolder, changeFolder, getFolder } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { encodeShot } from '../keep/encode';
import { addLook, changeLook, getLook, listLooks, removeLook } from '../looks/looks';
import { addRoutine, getRoutine } from '../routines/routines';
import { changeShot, getSteps } from '../shots/change';
import { giveLook } from '../shots/giveLook';
import { getPaintable, getShot } from '../shots/rows';
import { begin, finish, sizeOf, storeTelling, testFolder } from './setup';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';

beforeAll(begin);
afterAll(finish);
jest.setTimeout(90_000);

const wide = {
  name: 'Wide rim',
  finish: { surround: { border: { ...parts.border.first, width: 30 } } },
};
const add = (look: object) => addLook(lookInputSchema.parse(look));

test('six ship, each sound, with names of their own', async () => {
  const looks = await listLooks();
  expect(looks).toHaveLength(6);
  expect(new Set(looks.map(({ name }) => name)).size).toBe(6);
  for (const { finish: does } of looks) expect(Object.keys(does).length).toBeGreaterThan(0);
});

test('one is made, changed and removed; a name or key that is taken is refused in words', async () => {
  const look = await add({ ...wide, key: 'alt+w' });
  expect(await getLook(look.id)).toMatchObject({ ...wide, key: 'alt+w' });
  await expect(add({ ...wide, name: 'wide RIM' })).rejects.toThrow(/a look “Wide rim” already/);
  await expect(add({ ...wide, name: 'Other', key: 'alt+w' })).rejects.toThrow(/has this key/);
  const adjust = { on: 'all' as const, grey: 100 };
  await changeLook(look.id, { finish: { adjust } });
  expect(await getLook(look.id)).toMatchObject({ name: 'Wide rim', finish: { adjust } });
  await removeLook(look.id);
  await expect(getLook(look.id)).rejects.toThrow('There is no such look.');
});

test('pressed twice, one is made', async () => {
  const twice = await Promise.allSettled([
    add({ ...wide, name: 'Twice' }),
    add({ ...wide, name: 'twice' }),
  ]);
  expect(twice.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  expect((await listLooks()).filter(({ name }) => /^twice$/i.test(name))).toHaveLength(1);
});

test.each([
  ['nothing done', { name: 'None', finish: {} }, /nothing is done by this look/],
  ['no name', { ...wide, name: ' ' }, /must not be empty/],
  [
    'a watermark without its picture',
    { name: 'W', finish: { surround: { watermark: { ...parts.watermark.first, picture: 'p' } } } },
    /the watermark has no picture/,
  ],
])('%s is refused', (_, odd, words) => {
  expect(lookInputSchema.safeParse(odd).error?.message).toMatch(words);
});

test('given to several it counts them, and each can be undone in one step', async () => {
  const text = '{n}. {title}';
  const look = await add({
    name: 'Counted',
    finish: { surround: { caption: { ...parts.caption.first, text } } },
  });
  const ids = [await storeTelling(), await storeTelling()];
  const missing = '00000000-0000-4000-8000-000000000000';
  const done = await giveLook(look, [...ids, missing]);
  expect(done).toEqual({ given: 2, left: [{ id: missing, problem: 'There is no such shot.' }] });
  for (const [i, id] of ids.entries()) {
    const { document } = await getShot(id);
    expect(document.finish?.surround?.caption).toMatchObject({ text, number: i + 1 });
    const { steps, position } = await getSteps(id);
    expect(steps.at(-1)?.label).toBe('Look “Counted”');
    expect(undo({ document, steps, position }).document.finish).toBeUndefined();
  }
});

test('a folder gives its look to every copy, and to nothing else; removed, it gives none', async () => {
  const look = await add({ ...wide, name: 'Folder rim' });
  const path = testFolder('looks');
  const folder = await addFolder({ name: 'Looks', path, look: look.id });
  expect((await getFolder(folder.id)).look).toBe(look.id);
  const shot = await storeTelling();
  const { width, height } = await getShot(shot);
  const size = async () => {
    const copy = await keepCopy(shot, { folderId: folder.id });
    return sizeOf(await readFile(join(copy.path)));
  };
  expect(await size()).toEqual([width + 60, height + 60]);
  expect((await getShot(shot)).document.finish).toBeUndefined();
  const plain = await encodeShot(await getPaintable(shot), { format: 'png' });
  expect(plain.width).toBe(width);
  await removeLook(look.id);
  expect((await getFolder(folder.id)).look).toBeNull();
  expect(await size()).toEqual([width, height]);
  await changeFolder(folder.id, { quality: 80 });
});

test('a routine that gave a look which is gone gives none', async () => {
  const look = await add({ ...wide, name: 'Routine rim' });
  const { id } = await addRoutine({
    name: 'Rimmed',
    key: null,
    systemKey: null,
    way: { ...firstWay, look: look.id },
  });
  await removeLook(look.id);
  expect((await getRoutine(id)).way.look).toBeNull();
});

test('what is done to a shot is replaced as a whole by a look, and its picture goes with it', async () => {
  const id = await storeTelling();
  const { document, revision } = await getShot(id);
  const surround = { tilt: parts.tilt.first };
  await changeShot(id, { document: { ...document, finish: { surround } }, revision });
  await giveLook(await add({ ...wide, name: 'Whole rim' }), [id]);
  expect((await getShot(id)).document.finish).toEqual(wide.finish);
});
