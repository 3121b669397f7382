import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { clipAnswerSchema, type Clip } from '@/core/contracts/clip';
import { randomFrom } from '@/core/random/random';
import { sql } from '@/server/db/sql';
import { film, shownIn } from '@/server/tests/clipFilms';
import { begin, finish } from '@/server/tests/setup';
import { OwnApp } from './lib/ownApp';

const KILLS = 4;
/** Pictures a piece: what a recorder brings at a time. */
const A_PIECE = 15;
const next = randomFrom(20261130);

beforeAll(begin);
afterAll(finish);

/** A film in pieces as a recorder writes them: each of whole pictures. */
function piecesOf(bytes: Buffer): Buffer[] {
  // Clusters of Matroska begin with these four bytes (RFC 9559, section 5.1.3).
  const CLUSTER = Buffer.from([0x1f, 0x43, 0xb6, 0x75]);
  const starts: number[] = [];
  for (let at = bytes.indexOf(CLUSTER); at >= 0; at = bytes.indexOf(CLUSTER, at + 4))
    starts.push(at);
  return starts.map((at, i) => bytes.subarray(i === 0 ? 0 : at, starts[i + 1]));
}

test('killed at random moments of recording: what was answered is a clip, whole and playable', async () => {
  const data = join(process.env.REZZIK_DATA ?? '', 'clips');
  mkdirSync(data, { recursive: true });
  const start = () => OwnApp.start({ data, databaseUrl: process.env.DATABASE_URL ?? '' });
  const pieces = piecesOf(film(8 * A_PIECE, 'h264', 1_000));
  expect(pieces.length).toBeGreaterThanOrEqual(8);
  let app = await start();
  for (let kill = 0; kill < KILLS; kill += 1) {
    const id = randomUUID();
    const provenance = { source: 'screen', takenAt: new Date().toISOString() };
    await app.post('/api/clips', { id, provenance, type: 'video/x-matroska' });
    let answered = 0;
    const after = next() * 400;
    const killed = new Promise((resolve) => setTimeout(resolve, after)).then(() =>
      app.end('SIGKILL'),
    );
    for (const [n, piece] of pieces.entries()) {
      const path = `${app.url}/api/clips/${id}/pieces/${n}`;
      const body = new Uint8Array(piece);
      const isOn = await fetch(path, { method: 'PUT', body }).then(
        ({ ok }) => ok,
        () => false,
      );
      if (!isOn) break;
      answered += 1;
    }
    await killed;
    // As if half a minute went by: nobody brings any more of it.
    await sql()`update jobs set due_at = now(), leased_until = null where kind = 'clip'`;
    app = await start();
    if (answered === 0) continue;
    const clip = await ready(app, id);
    expect(clip.times.length).toBeGreaterThanOrEqual(answered * A_PIECE - 1);
    const { numbers } = shownIn(join(data, 'media', `${id}.mp4`));
    expect(numbers).toEqual(numbers.map((_, i) => i));
    expect(numbers).toHaveLength(clip.times.length);
  }
  await app.end();
}, 120_000);

async function ready(app: OwnApp, id: string): Promise<Clip> {
  for (let tries = 0; tries < 300; tries += 1) {
    const answer = await fetch(`${app.url}/api/clips/${id}`);
    const told = clipAnswerSchema.safeParse(await answer.json()).data;
    if (told?.state === 'ready') return told;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('It never became a clip.');
}
