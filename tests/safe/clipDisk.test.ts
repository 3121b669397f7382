import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { firstWay } from '@/core/contracts/way';
import { clipAnswerSchema, recordingSchema } from '@/core/contracts/clip';
import { cutUp } from '@/server/tests/clipLib';
import { film } from '@/server/tests/clipFilms';
import { begin, finish } from '@/server/tests/setup';
import { App, setWay } from '@/tests/e2e/lib/app';
import { fakeDevices, openBrowser } from '@/tests/e2e/lib/browser';
import { OwnApp } from './lib/ownApp';

/** So much is always kept back for what must be written in the end. */
const KEPT_BACK = 300_000_000;
const MORE = 24_000_000;

const data = join(process.env.REZZIK_DATA ?? '', 'clipDisk');
const media = join(data, 'media');

let app: OwnApp;
let bytes: Buffer;
beforeAll(async () => {
  await begin();
  mkdirSync(media, { recursive: true });
  app = await OwnApp.start({
    data,
    databaseUrl: process.env.DATABASE_URL ?? '',
    mounts: `mount -t tmpfs -o size=${KEPT_BACK + MORE},mode=700 rezzik-media '${media}'`,
  });
  // Grain in every picture: nothing of it can be packed.
  let seed = 1;
  bytes = film(900, 'lossless', 500, (picture) => {
    for (let at = 0; at < picture.length / 2; at += 1) {
      seed = (seed * 16_807) % 2_147_483_647;
      picture[at] = seed & 255;
    }
  });
}, 120_000);
afterAll(async () => {
  await app.end();
  await finish();
});

const put = (id: string, n: number, piece: Uint8Array) =>
  fetch(`${app.url}/api/clips/${id}/pieces/${n}`, {
    method: 'PUT',
    body: new Uint8Array(piece),
  });
async function begun(): Promise<string> {
  const id = randomUUID();
  const provenance = { source: 'screen', takenAt: new Date().toISOString() };
  await app.post('/api/clips', { id, provenance, type: 'video/x-matroska' });
  return id;
}
const refusalSchema = z.object({ error: z.object({ code: z.string(), message: z.string() }) });

test.each(['wrapped while it comes', 'wrapped in the end'])(
  'a disk that gets full while a clip comes that is %s: it is stopped in time, and all that came plays',
  async (how) => {
    // No more than three are wrapped as they come.
    const others =
      how === 'wrapped in the end' ? await Promise.all([begun(), begun(), begun()]) : [];
    for (const other of others) await put(other, 0, bytes.subarray(0, 4_000));
    const id = await begun();
    const pieces = cutUp(bytes, Math.ceil(bytes.length / 500_000));
    let stood = recordingSchema.parse({
      id,
      state: 'going',
      pieces: 0,
      bytes: 0,
      room: null,
      problem: null,
    });
    let refused: Response | null = null;
    for (const [n, piece] of pieces.entries()) {
      const answer = await put(id, n, piece);
      if (!answer.ok) {
        refused = answer;
        break;
      }
      stood = recordingSchema.parse(await answer.json());
    }
    expect(refused?.status).toBe(507);
    expect(refusalSchema.parse(await refused?.json()).error).toEqual({
      code: 'disk-full',
      message: 'The disk is nearly full. What was recorded is kept.',
    });
    // As much again is needed for the film.
    expect(stood.bytes).toBeGreaterThan(MORE / 4);
    expect(stood.bytes).toBeLessThanOrEqual(MORE * 0.6);
    expect(stood.room).toBeLessThan(1_000_000);
    await app.post(`/api/clips/${id}/end`, { pieces: stood.pieces, bin: true });
    const clip = clipAnswerSchema.parse(await (await fetch(`${app.url}/api/clips/${id}`)).json());
    expect(clip).toMatchObject({ state: 'ready', width: 160, height: 96 });
    if (clip.state !== 'ready') return;
    // Of a picture that came in part nothing is shown.
    expect(clip.bytes).toBeGreaterThan(stood.bytes * 0.98);
    for (const other of others) await fetch(`${app.url}/api/clips/${other}`, { method: 'DELETE' });
    const gone = await fetch(`${app.url}/api/shots/${id}`, { method: 'DELETE' });
    expect(gone.status).toBe(204);
  },
  60_000,
);

test('on the practice desk: the clip opens with what came, and the reason is said', async () => {
  app.inside(`head -c ${MORE - 300_000} /dev/zero > '${media}/others'`);
  process.env.REZZIK_URL = app.url;
  const browser = await openBrowser({ args: fakeDevices });
  try {
    const page = new App(browser.driver);
    await setWay({ ...firstWay, display: 'Left', kind: 'clip' });
    await page.go('/take');
    await page.desk();
    await page.click('Record');
    await page.sees('The disk is nearly full. What was recorded is kept.');
    await page.sees('Begin here');
  } finally {
    await browser.close();
  }
}, 120_000);
