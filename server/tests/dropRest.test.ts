import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { markSchema, type MarkInput } from '@/core/marks/registry';
import { randomFrom } from '@/core/random/random';
import { sql } from '../db/sql';
import { encodeShot } from '../keep/encode';
import { thumbnail } from '../paint/picture';
import { changeShot, getSteps } from '../shots/change';
import { dropTheRest, sharingShots } from '../shots/dropRest';
import { getFrame, getShot } from '../shots/rows';
import { duplicateShot, storeShot } from '../shots/store';
import { begin, finish } from './setup';

beforeAll(() => begin());
afterAll(() => finish());
beforeEach(async () => {
  await sql()`delete from shots`;
  await sql()`delete from frames`;
});

const SIZE = { width: 120, height: 90 };

/** A frame whose every pixel is its own, so that any of it can be found again. */
function tellingFrame(): Promise<Buffer> {
  const data = Buffer.alloc(SIZE.width * SIZE.height * 3);
  const next = randomFrom(4711);
  for (let i = 0; i < data.length; i += 1) data[i] = next() * 256;
  return sharp(data, { raw: { ...SIZE, channels: 3 } })
    .png()
    .toBuffer();
}

const mark = (input: MarkInput) => markSchema.parse(input);
const SECRET = 'the tank code is 4711';

async function shotWithSecrets(): Promise<string> {
  const { id } = await storeShot({ picture: await tellingFrame(), title: 'Tank' });
  const words = { kind: 'text', width: 60, textSize: 8, colour: '#000000' } as const;
  await changeShot(id, {
    revision: 1,
    document: {
      version: 1,
      view: { crop: { x: 20, y: 10, width: 80, height: 60 } },
      marks: [
        mark({ ...words, id: 'under', x: 34, y: 24, text: SECRET }),
        mark({ ...words, id: 'outside', x: 2, y: 80, width: 10, text: SECRET }),
        mark({ id: 'hide', kind: 'blur', x: 30, y: 20, width: 66, height: 40 }),
        mark({ ...words, id: 'over', x: 24, y: 12, text: 'seen' }),
      ],
    },
  });
  await thumbnail(id);
  return id;
}

/** Every value of every table, as words and as bytes. */
async function everything(): Promise<{ words: string; blobs: Buffer[] }> {
  const tables = await sql()<{ name: string }[]>`
    select table_name as name from information_schema.tables where table_schema = 'public'`;
  let words = '';
  const blobs: Buffer[] = [];
  for (const { name } of tables) {
    for (const row of await sql()`select * from ${sql()(name)}`) {
      for (const value of Object.values(row)) {
        if (Buffer.isBuffer(value)) blobs.push(value);
        else words += `${JSON.stringify(value)}\n`;
      }
    }
  }
  return { words, blobs };
}

const pixelsOf = async (bytes: Uint8Array) =>
  sharp(bytes).removeAlpha().raw().toBuffer({ resolveWithObject: true });

test('what was outside and under Hide marks is nowhere in the database any more', async () => {
  const id = await shotWithSecrets();
  const before = (await encodeShot(id, { format: 'png' })).bytes;
  const { sha256 } = await getFrame(id);
  expect((await everything()).words).toContain(SECRET);
  await dropTheRest(id, (await getShot(id)).revision, false);
  const after = await everything();
  expect(after.words).not.toContain(SECRET);
  expect(after.words).not.toContain(sha256);
  const telling = await pixelsOf(await tellingFrame());
  const row = (y: number, x: number) => {
    const from = (y * SIZE.width + x) * 3;
    return telling.data.subarray(from, from + 24);
  };
  for (const blob of after.blobs) {
    const { data } = await pixelsOf(blob);
    // Eight pixels in a row of what was outside, and of what was hidden.
    expect(data.includes(row(5, 5))).toBe(false);
    expect(data.includes(row(80, 100))).toBe(false);
    expect(data.includes(row(30, 40))).toBe(false);
  }
  const shot = await getShot(id);
  expect([shot.width, shot.height]).toEqual([80, 60]);
  expect(shot.document.marks.map((m) => m.id)).toEqual(['over']);
  expect(await getSteps(id)).toEqual({ steps: [], position: 0 });
  // It still looks the same.
  const [one, other] = [
    await pixelsOf(before),
    await pixelsOf((await encodeShot(id, { format: 'png' })).bytes),
  ];
  expect(Buffer.compare(one.data, other.data)).toBe(0);
});

test('a stale revision changes nothing', async () => {
  const id = await shotWithSecrets();
  await expect(dropTheRest(id, 1, false)).rejects.toMatchObject({ status: 409 });
  expect((await getShot(id)).width).toBe(SIZE.width);
});

test('shots that share the frame keep it, or drop it too when asked', async () => {
  const id = await shotWithSecrets();
  const copy = await duplicateShot(id, {});
  expect(await sharingShots(id)).toEqual([copy.id]);
  const shot = await getShot(id);
  await dropTheRest(id, shot.revision, false);
  expect((await getShot(copy.id)).width).toBe(SIZE.width);
  expect((await everything()).words).toContain(SECRET);
  const third = await duplicateShot(copy.id, {});
  await dropTheRest(copy.id, (await getShot(copy.id)).revision, true);
  expect((await getShot(third.id)).width).toBe(80);
  expect((await everything()).words).not.toContain(SECRET);
});
