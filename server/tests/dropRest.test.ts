import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { folderInputSchema, copyInputSchema } from '@/core/contracts/folder';
import { linkInputSchema } from '@/core/contracts/link';
import { remoteInputSchema } from '@/core/contracts/remote';
import { markSchema, type MarkInput } from '@/core/marks/registry';
import { randomFrom } from '@/core/random/random';
import { everyValue } from '@/tests/lib/stored';
import { sql } from '../db/sql';
import { addFolder } from '../folders/folders';
import { keepCopy } from '../keep/copies';
import { encodeShot } from '../keep/encode';
import { makeLink } from '../links/links';
import { dropMessage, listDropped } from '../mail/drop';
import { addRemote } from '../remote/remotes';
import { sendTo } from '../remote/sendings';
import { thumbnail } from '../pictures/painted';
import { changeShot, getSteps } from '../shots/change';
import { besides, dropTheRest, sharingShots } from '../erase/dropRest';
import { getFrame, getPaintable, getShot } from '../shots/rows';
import { duplicateShot, storeShot } from '../shots/store';
import { begin, finish, testFolder } from './setup';

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
      version: 6,
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

const pixelsOf = async (bytes: Uint8Array) =>
  sharp(bytes).removeAlpha().raw().toBuffer({ resolveWithObject: true });

test('what was outside and under Hide marks is nowhere in the database any more', async () => {
  const id = await shotWithSecrets();
  const before = (await encodeShot(await getPaintable(id), { format: 'png' })).bytes;
  const { sha256 } = await getFrame(id);
  expect((await everyValue()).words).toContain(SECRET);
  await dropTheRest(id, (await getShot(id)).revision, false);
  const after = await everyValue();
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
    await pixelsOf((await encodeShot(await getPaintable(id), { format: 'png' })).bytes),
  ];
  expect(Buffer.compare(one.data, other.data)).toBe(0);
});

test('what waits to be sent and what lies in the mail drop go with it; what left is named', async () => {
  const id = await shotWithSecrets();
  const away = remoteInputSchema.parse({ name: 'Away', url: 'http://127.0.0.1:9/' });
  const { state } = await sendTo(id, (await addRemote(away)).id);
  expect(state).toBe('waiting');
  await dropMessage(id, Buffer.from('Subject: Tank'));
  const folder = await addFolder(
    folderInputSchema.parse({ name: 'Rest', path: testFolder('rest'), pattern: '{title}' }),
  );
  const copy = await keepCopy(id, copyInputSchema.parse({ folderId: folder.id }));
  await makeLink(id, linkInputSchema.parse({}));
  expect(await besides(id)).toEqual({
    ...{ sharing: 0, copies: [copy.path], sent: [], waiting: 1, links: 1 },
  });
  await dropTheRest(id, (await getShot(id)).revision, false);
  expect(await besides(id)).toMatchObject({ copies: [copy.path], waiting: 0, links: 0 });
  expect((await listDropped()).filter(({ name }) => name.includes(id))).toEqual([]);
  expect(await sql()`select 1 from sendings`).toHaveLength(0);
  expect(await sql()`select 1 from jobs where kind = 'send'`).toHaveLength(0);
});

test('drawing on a shot while it is being sent keeps nothing from being sent', async () => {
  const id = await shotWithSecrets();
  const away = remoteInputSchema.parse({ name: 'Meanwhile', url: 'http://127.0.0.1:9/' });
  const remote = await addRemote(away);
  const { revision, document } = await getShot(id);
  const [sending] = await Promise.all([
    sendTo(id, remote.id),
    changeShot(id, { revision, document: { ...document, marks: [] } }),
  ]);
  expect(sending.state).toBe('waiting');
});

test('a copy that was made before the drop and would be sent after it is not', async () => {
  const id = await shotWithSecrets();
  const remote = await addRemote(
    remoteInputSchema.parse({ name: 'Late', url: 'http://127.0.0.1:9/' }),
  );
  const sending = sendTo(id, remote.id);
  await dropTheRest(id, (await getShot(id)).revision, false);
  await sending.catch(() => undefined);
  const rows = await sql()<{ bytes: Buffer | null }[]>`select bytes from sendings`;
  const telling = await pixelsOf(await tellingFrame());
  const hidden = telling.data.subarray((5 * SIZE.width + 5) * 3, (5 * SIZE.width + 5) * 3 + 24);
  for (const { bytes } of rows)
    if (bytes) expect((await pixelsOf(bytes)).data.includes(hidden)).toBe(false);
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
  expect((await everyValue()).words).toContain(SECRET);
  const third = await duplicateShot(copy.id, {});
  await dropTheRest(copy.id, (await getShot(copy.id)).revision, true);
  expect((await getShot(third.id)).width).toBe(80);
  expect((await everyValue()).words).not.toContain(SECRET);
});
