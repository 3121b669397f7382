import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import sharp from 'sharp';
import { joinSchema } from '@/core/contracts/join';
import { parts } from '@/core/finish/surround/surround';
import { untouched } from '@/core/document/view';
import { encodeShot } from '../keep/encode';
import { joinShots } from '../join/join';
import { getPaintable, getShot } from '../shots/rows';
import { storeShot } from '../shots/store';
import { busyPng } from '@/tests/lib/pictures';
import { begin, finish } from './setup';

beforeAll(begin);
afterAll(finish);
jest.setTimeout(90_000);

const SIZE = { width: 80, height: 60 };
async function store(title: string, colour: string): Promise<string> {
  const { id } = await storeShot({
    picture: await sharp({ create: { ...SIZE, channels: 3, background: colour } })
      .png()
      .toBuffer(),
    title,
    document: {
      ...untouched(SIZE),
      finish: { surround: { border: { ...parts.border.first, width: 10, colour: '#000000' } } },
    },
  });
  return id;
}
const joined = (first: string, join: object) => joinShots(first, joinSchema.parse(join), {});
async function pixels(id: string) {
  const { bytes } = await encodeShot(await getPaintable(id), { format: 'png' });
  const { data, info } = await sharp(bytes)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const at = (x: number, y: number) => {
    const from = (y * info.width + x) * 4;
    return [...data.subarray(from, from + 4)];
  };
  return { width: info.width, height: info.height, at };
}

test('two shots side by side, as they leave, each a piece that knows its shot', async () => {
  const [a, b] = [await store('Red bed', '#C80000'), await store('Blue bed', '#0000C8')];
  const { id } = await joined(a, { with: [b], how: 'side by side', gap: 20, numbers: true });
  const shot = await getShot(id);
  expect(shot).toMatchObject({ title: 'Red bed + Blue bed', titleOwn: false });
  expect(shot.provenance.source).toBe('joined');
  expect(shot.document.marks).toMatchObject([
    { kind: 'piece', name: 'Red bed', shot: a, x: 20, y: 20, width: 100, height: 80 },
    { kind: 'piece', name: 'Blue bed', shot: b, x: 140 },
    { kind: 'number', value: 1 },
    { kind: 'number', value: 2 },
  ]);
  const { width, height, at } = await pixels(id);
  expect([width, height]).toEqual([260, 120]);
  expect(at(5, 5)).toEqual([255, 255, 255, 255]);
  expect(at(22, 60)).toEqual([0, 0, 0, 255]);
  expect(at(90, 80)).toEqual([200, 0, 0, 255]);
  expect(at(210, 80)).toEqual([0, 0, 200, 255]);
  // The shots themselves stay as they are.
  expect((await getShot(a)).revision).toBe(1);
});

test('before and after are two, with words; transparent is transparent', async () => {
  const [a, b] = [await store('One', '#C80000'), await store('Two', '#0000C8')];
  const join = { with: [b], how: 'before after', gap: 10, background: null };
  const { id } = await joined(a, join);
  const { document } = await getShot(id);
  expect(document.marks.flatMap((mark) => ('text' in mark ? [mark.text] : []))).toEqual([
    'Before',
    'After',
  ]);
  expect((await pixels(id)).at(2, 2)[3]).toBe(0);
  const three = joinSchema.safeParse({ ...join, with: [a, b] });
  expect(three.error?.message).toMatch(/before and after are two shots/);
});

test('pictures that would be too large together are held smaller, and lie as large', async () => {
  const ids: string[] = [];
  for (let i = 0; i < 3; i += 1) {
    const picture = await busyPng(1200, 1100, i + 1);
    ids.push((await storeShot({ picture, title: `Noise ${i}` })).id);
  }
  const [first = '', ...rest] = ids;
  const { id } = await joined(first, { with: rest, how: 'stacked', gap: 0 });
  const { document } = await getShot(id);
  const sizes = Object.values(document.pictures ?? {}).map(({ width }) => width);
  expect(Math.max(...sizes)).toBeLessThan(1200);
  expect(document.marks[2]).toMatchObject({ y: 2200, width: 1200, height: 1100 });
});

test('names that were made from windows stay here', async () => {
  const { id: a } = await storeShot({
    picture: await sharp({ create: { ...SIZE, channels: 3, background: '#808080' } })
      .png()
      .toBuffer(),
    title: 'Region, Watering plan',
    titleMade: true,
    provenance: {
      ...{ source: 'display', takenAt: '2026-11-23T14:02:11Z', windowTitle: 'Watering plan' },
    },
  });
  const { id } = await joined(a, { with: [await store('Beds', '#C80000')], how: 'grid' });
  expect(JSON.stringify(await getShot(id))).not.toContain('Watering plan');
  expect((await getShot(id)).title).toBe('Region + Beds');
});

test('a shot that is not there is said', async () => {
  const missing = '00000000-0000-4000-8000-000000000000';
  await expect(
    joined(await store('One', '#C80000'), { with: [missing], how: 'grid' }),
  ).rejects.toThrow('There is no such shot.');
});
