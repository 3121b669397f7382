import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import {
  appendFileSync,
  existsSync,
  readdirSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import sharp from 'sharp';
import { POST as alive } from '@/app/api/clips/[id]/alive/route';
import { GET as listShots } from '@/app/api/shots/route';
import { recordingSchema } from '@/core/contracts/clip';
import { shotPageSchema } from '@/core/contracts/shot';
import { forgetHeard } from '../clips/silence';
import { sql } from '../db/sql';
import { workAlone } from '../jobs/run';
import { mediaDir, partPath, sweepMedia } from '../media/files';
import { roomUsed } from '../room/used';
import { getFrame, getShot } from '../shots/rows';
import { eraseShot } from '../shots/store';
import { isBusy } from '../words/quiet';
import { film, HEIGHT, numberOn, WIDTH } from './clipFilms';
import { begun, piece, ended, look, cutUp, recorded, codeOf } from './clipLib';
import { at, begin, finish, request } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

describe('recording', () => {
  test('pieces in order become a clip among the shots, of the very pictures', async () => {
    const clip = await recorded(film(45), { title: 'Clip 1, Sensors' });
    expect(clip).toMatchObject({ title: 'Clip 1, Sensors', width: WIDTH, height: HEIGHT });
    expect(clip).toMatchObject({ codec: 'h264', fineColours: false, type: 'video/mp4' });
    expect(clip.times).toHaveLength(45);
    expect(clip.times[0]).toBe(0);
    expect(clip.times[30]).toBeCloseTo(2, 3);
    expect(clip.provenance).toMatchObject({ frames: 45, until: '2026-11-27T09:12:02.999Z' });
    const answer = await listShots(request('/api/shots?limit=5'), at({}));
    expect(shotPageSchema.parse(await answer.json())).toMatchObject({
      shots: [{ id: clip.id, seconds: 2.933 }],
    });
    expect(await getShot(clip.id)).toMatchObject({ clip: true });
    // Its frame is the first picture.
    const { data } = await sharp((await getFrame(clip.id)).bytes)
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(numberOn(data)).toBe(0);
    const room = await roomUsed();
    expect(room.kinds.find(({ kind }) => kind === 'films')?.bytes).toBe(clip.bytes);
    // Nothing of the recording is left beside it.
    expect(existsSync(partPath(clip.id))).toBe(false);
    expect(statSync(mediaDir()).mode & 0o777).toBe(0o700);
  });

  test('of a part that was chosen before, all is recorded and the part is shown', async () => {
    const crop = { x: 20, y: 10, width: 40, height: 30 };
    const of = { width: WIDTH / 2, height: HEIGHT / 2 };
    const { width, height, document, leaves } = await recorded(film(5), { shown: { crop, of } });
    expect([width, height]).toEqual([WIDTH, HEIGHT]);
    // Its pictures became twice as large as what it was chosen on.
    expect(document.view).toEqual({ crop: { x: 40, y: 20, width: 80, height: 60 } });
    expect(leaves).toEqual({ width: 80, height: 60 });
    const oval = { crop, of: { width: WIDTH, height: HEIGHT }, shape: { kind: 'oval' } };
    expect((await recorded(film(5), { shown: oval })).document.view).toEqual({
      ...{ crop, shape: { kind: 'oval' } },
    });
    const wrong = await begun(randomUUID(), { shown: { crop: { ...crop, width: 0 }, of } });
    expect(wrong.status).toBe(400);
  });

  test('the same piece twice counts once; another one, a gap, one after the end are refused', async () => {
    const id = randomUUID();
    await begun(id);
    expect((await begun(id)).status).toBe(201);
    const [first, second] = cutUp(film(30), 2) as [Buffer, Buffer];
    const stands = recordingSchema.parse(await (await piece(id, 0, first)).json());
    // 300 MB stay free, and the film that is made of it takes as much again.
    const { bavail, bsize } = statfsSync(mediaDir());
    expect((stands.room ?? NaN) / ((bavail * bsize - 300e6) / 2)).toBeCloseTo(1, 1);
    // Nothing is read meanwhile.
    expect(isBusy()).toBe(true);
    expect((await piece(id, 0, first)).status).toBe(200);
    expect(await codeOf(await piece(id, 0, second))).toEqual([409, 'not-next']);
    const gap = await piece(id, 2, second);
    expect(await gap.json()).toMatchObject({ expected: 1 });
    expect(await codeOf(await ended(id, 2))).toEqual([409, 'not-next']);
    await piece(id, 1, second);
    await ended(id, 2);
    expect((await look(id)).told).toMatchObject({ state: 'ready' });
    expect(await codeOf(await piece(id, 2, second))).toEqual([409, 'over']);
    expect(await codeOf(await piece(randomUUID(), 0, second))).toEqual([404, 'not-found']);
    expect(await codeOf(await begun(id))).toEqual([409, 'recorded']);
  });

  test('what came half, after a crash, is written over', async () => {
    const id = randomUUID();
    await begun(id);
    const bytes = film(30);
    const [first, second] = cutUp(bytes, 2) as [Buffer, Buffer];
    await piece(id, 0, first);
    appendFileSync(partPath(id), Buffer.alloc(100, 7));
    await piece(id, 1, second);
    await ended(id, 2);
    expect((await look(id)).told).toMatchObject({ state: 'ready' });
    expect((await look(id)).told).toHaveProperty('times.length', 30);
  });

  test('one that falls silent, whatever the clock says, killed in the middle of a piece, becomes a clip of what came', async () => {
    const id = randomUUID();
    await begun(id);
    const bytes = film(60);
    await piece(id, 0, bytes.subarray(0, Math.floor(bytes.length * 0.7)));
    await workAlone('clip');
    expect((await look(id)).told).toMatchObject({ state: 'going' });
    // A clock that was set, or a computer that slept: it was heard of just now.
    await sql()`update jobs set due_at = now() where kind = 'clip'`;
    await workAlone('clip');
    expect((await look(id)).told).toMatchObject({ state: 'going', problem: null });
    forgetHeard(id);
    await sql()`update jobs set due_at = now() where kind = 'clip'`;
    await workAlone('clip');
    const { told } = await look(id);
    expect(told).toMatchObject({ state: 'ready' });
    const count = told?.state === 'ready' ? told.times.length : 0;
    expect(count).toBeGreaterThan(30);
    expect(count).toBeLessThan(60);
  });

  test('one that pauses, or on which nothing moves, is none that is silent', async () => {
    const id = randomUUID();
    await begun(id);
    const job = sql()`select id from recordings where shot_id = ${id}`;
    await sql()`update jobs set due_at = now() - interval '1 second' where id = (${job})`;
    expect((await alive(request('/x', { method: 'POST' }), at({ id }))).status).toBe(204);
    await workAlone('clip');
    expect((await look(id)).told).toMatchObject({ state: 'going' });
    await piece(id, 0, film(20));
    await ended(id, 1);
    const over = await alive(request('/x', { method: 'POST' }), at({ id }));
    expect(await codeOf(over)).toEqual([409, 'over']);
  });

  test('one without any picture leaves nothing', async () => {
    const id = randomUUID();
    await begun(id);
    expect((await ended(id, 0)).status).toBe(404);
    expect((await look(id)).status).toBe(404);
    expect(await sql()`select 1 from recordings where shot_id = ${id}`).toHaveLength(0);
  });

  test('nor does one that ended before its first picture came', async () => {
    const id = randomUUID();
    const all = film(5);
    // A Cluster of Matroska (RFC 9559) begins so; the first picture comes a little later.
    const head = all.subarray(0, all.indexOf(Buffer.from('1f43b675', 'hex')) + 12);
    expect(head.length).toBeGreaterThan(100);
    await begun(id);
    await piece(id, 0, head);
    await ended(id, 1);
    expect((await look(id)).status).toBe(404);
    expect(existsSync(partPath(id))).toBe(false);
  });

  test('thrown away while it is recorded it lies in the Bin, and goes for good with its film', async () => {
    const id = randomUUID();
    await begun(id);
    await piece(id, 0, film(20));
    await ended(id, 1, true);
    expect((await getShot(id)).binnedAt).not.toBeNull();
    const files = () => readdirSync(mediaDir()).filter((name) => name.startsWith(id));
    expect(files()).toContain(`${id}.mp4`);
    await eraseShot(id);
    expect(files()).toEqual([]);
    expect(await sql()`select 1 from clips where shot_id = ${id}`).toHaveLength(0);
  });

  test('what is no film is told as that, and is kept', async () => {
    const id = randomUUID();
    await begun(id);
    await piece(id, 0, Buffer.from('-i /etc/passwd; this is no film '.repeat(100)));
    await ended(id, 1);
    expect((await look(id)).told).toEqual({
      ...{ id, state: 'ended', pieces: 1, bytes: 3200, room: expect.any(Number) },
      problem: expect.stringContaining('This is no film that can be read'),
    });
    await sweepMedia();
    expect(existsSync(partPath(id))).toBe(true);
    await sql()`delete from recordings where shot_id = ${id}`;
  });

  test('a list of other files, and a picture larger than a clip may be, are no films', async () => {
    const { id: there } = await recorded(film(15));
    const list = [
      '#EXTM3U',
      '#EXT-X-TARGETDURATION:9',
      '#EXTINF:1,',
      `file://${mediaDir()}/${there}.mp4`,
    ];
    const huge = execFileSync('ffmpeg', [
      ...['-loglevel', 'error', '-f', 'lavfi', '-i', 'color=s=8192x8192:d=0.1', '-f', 'matroska'],
      ...['-c:v', 'libx264', '-preset', 'ultrafast', '-'],
    ]);
    for (const [bytes, problem] of [
      [Buffer.from([...list, '#EXT-X-ENDLIST', ''].join('\n')), 'no film that can be read'],
      [huge, 'and 36 million pixels a picture'],
    ] as const) {
      const id = randomUUID();
      await begun(id);
      await piece(id, 0, bytes);
      await ended(id, 1);
      expect((await look(id)).told).toMatchObject({ problem: expect.stringContaining(problem) });
      await sql()`delete from recordings where shot_id = ${id}`;
    }
  });

  test('files that nobody knows of go, those of clips stay', async () => {
    const { id } = await recorded(film(15));
    const stray = partPath(randomUUID());
    writeFileSync(stray, 'x');
    await sweepMedia();
    expect(existsSync(stray)).toBe(false);
    expect(readdirSync(mediaDir())).toContain(`${id}.mp4`);
  });
});
