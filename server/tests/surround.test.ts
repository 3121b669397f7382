import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import sharp from 'sharp';
import { parts, type Surround } from '@/core/finish/surround/surround';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { encodeShot, plainPicture, type EncodeWish } from '../keep/encode';
import { thumbnail } from '../pictures/painted';
import { changeShot } from '../shots/change';
import { getPaintable } from '../shots/rows';
import { storeShot } from '../shots/store';
import { begin, finish, gradientPng, sizeOf, testFolder } from './setup';

/** What is around a picture as it leaves by the ways there are. */

beforeAll(begin);
afterAll(finish);
jest.setTimeout(90_000);

const SIZE = { width: 240, height: 160 };
const text = {
  ...{ id: 't', kind: 'text', x: 20, y: 20, width: 180, text: 'Wren', colour: '#000000' },
  ...{ textSize: 20, bold: false, plate: null },
};

async function store(surround: Surround, title = 'Sensor page'): Promise<string> {
  const { id } = await storeShot({
    picture: await gradientPng(SIZE.width, SIZE.height),
    title,
    titleMade: title.startsWith('Region'),
    document: { ...untouched(SIZE), marks: [markSchema.parse(text)], finish: { surround } },
    provenance: {
      source: 'display',
      takenAt: '2026-11-23T14:02:11Z',
      windowTitle: 'Watering plan',
      address: 'https://beds.fernhollow.example/14',
    },
  });
  return id;
}
const encode = async (id: string, wish: EncodeWish) => encodeShot(await getPaintable(id), wish);
const inText = (bytes: Uint8Array) => Buffer.from(bytes).toString('utf8');

const caption = (words: string): Surround => ({
  caption: { ...parts.caption.first, text: words, size: 8 },
});

test('a caption says where it is from only where the rule of the place lets that out', async () => {
  const id = await store(caption('{title} · {where} · {time:yyyy}'));
  const closed = inText((await encode(id, { format: 'svg' })).bytes);
  expect(closed).toContain('Sensor page · 2026</tspan>');
  expect(closed).not.toMatch(/Watering plan|fernhollow/);
  const facts = { words: true, origin: true };
  const open = inText((await encode(id, { format: 'svg', facts })).bytes);
  expect(open.replace(/<desc>.*?<\/desc>/s, '')).toMatch(/Watering plan[^]*fernhollow/);
  // Painted, too: the same words or others, though the shot and its revision are the same.
  const png = async (wish: Partial<EncodeWish>) =>
    Buffer.from((await encode(id, { format: 'bmp', ...wish })).bytes);
  const first = await png({});
  expect((await png({ facts })).equals(first)).toBe(false);
  expect((await png({})).equals(first)).toBe(true);
  const plain = await sharp((await plainPicture(await getPaintable(id))).png).metadata();
  expect(plain.height).toBeGreaterThan(SIZE.height);
});

test('a name that was made from a window’s title stays here in a caption as well', async () => {
  const id = await store(caption('{title}'), 'Region, Watering plan');
  expect(inText((await encode(id, { format: 'svg' })).bytes)).toContain('Region</tspan>');
});

test('a PDF has the words of picture and caption where they stand', async () => {
  const id = await store({
    ...caption('Reed bed'),
    background: { ...parts.background.first, room: 30 },
  });
  const path = join(testFolder('surround'), 'surrounded.pdf');
  writeFileSync(path, (await encode(id, { format: 'pdf' })).bytes);
  const boxes = execFileSync('pdftotext', ['-bbox', path, '-'], { encoding: 'utf8' });
  const top = (word: string) =>
    Number(new RegExp(`yMin="([\\d.]+)"[^>]*>${word}<`).exec(boxes)?.[1]);
  expect(top('Wren')).toBeGreaterThan(0);
  // The caption stands below the picture: 160 pixels are 120 points.
  expect(top('Reed')).toBeGreaterThan(top('Wren') + 90);
});

test('the size is that of the whole, and what is wished for is reckoned from it', async () => {
  const id = await store({ border: { ...parts.border.first, width: 30 } });
  const own = { width: 300, height: 220 };
  expect(await encode(id, { format: 'png' })).toMatchObject({ ...own, own, opaque: true });
  const half = await encode(id, { format: 'png', percent: 50 });
  expect(half).toMatchObject({ width: 150, height: 110, own });
  expect(await sizeOf(half.bytes)).toEqual([150, 110]);
  expect(await encode(id, { format: 'svg' })).toMatchObject({ ...own, own });
  const [width, height] = await sizeOf(await thumbnail(id));
  expect((width ?? 0) / (height ?? 1)).toBeCloseTo(300 / 220, 1);
});

test('a format without transparency has its background behind a shadow', async () => {
  const id = await store({ shadow: { ...parts.shadow.first, strength: 100 } });
  const wish = { format: 'jpeg' as const, quality: 95, background: '#00FF00' };
  const { bytes, opaque } = await encode(id, wish);
  expect(opaque).toBe(false);
  const { data } = await sharp(bytes).raw().toBuffer({ resolveWithObject: true });
  expect(data[1]).toBeGreaterThan(230);
  expect(data[0]).toBeLessThan(30);
});

test('around a free shape and a turned picture it is painted as well', async () => {
  const id = await store({ border: parts.border.first, shadow: parts.shadow.first });
  const { document, revision } = await getPaintable(id);
  const view = {
    crop: { x: 10, y: 10, width: 100, height: 150 },
    turn: { quarters: 1 as const, mirrored: true, angle: 4 },
    shape: { kind: 'oval' as const },
  };
  await changeShot(id, { document: { ...document, view }, revision });
  const { bytes, opaque } = await encode(id, { format: 'png' });
  expect(opaque).toBe(false);
  expect((await sharp(bytes).stats()).isOpaque).toBe(false);
});

test('a watermark needs its picture, and what is larger than may be made is said in words', async () => {
  const watermark = { ...parts.watermark.first, picture: 'gone' };
  await expect(store({ watermark })).rejects.toThrow(/the watermark has no picture/);
  const tall = await storeShot({
    picture: await sharp({
      create: { width: 4, height: 32_760, channels: 3, background: '#808080' },
    })
      .png()
      .toBuffer(),
    title: 'Long',
    document: {
      ...untouched({ width: 4, height: 32_760 }),
      finish: { surround: { background: { ...parts.background.first, room: 100 } } },
    },
    provenance: { source: 'display', takenAt: '2026-11-23T14:02:11Z' },
  });
  await expect(encode(tall.id, { format: 'png' })).rejects.toThrow(
    /That would be 204 × 32960 pixels; Rezzik makes up to/,
  );
});
