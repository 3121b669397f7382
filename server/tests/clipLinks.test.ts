import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { createServer } from 'node:net';
import { simpleParser } from 'mailparser';
import { untouched } from '@/core/document/view';
import { linkSchema, type Link } from '@/core/contracts/link';
import { POST as mail } from '@/app/api/clips/[id]/mail/route';
import { POST as links } from '@/app/api/clips/[id]/links/route';
import { GET as list } from '@/app/api/shots/[id]/links/route';
import { GET as view } from '@/app/v/[token]/route';
import { env } from '../base/env';
import { openLinks } from '../door/listener';
import { answerLink } from '../links/answer';
import { takeBack } from '../links/links';
import { mediaDir, sweepMedia, writingPath } from '../media/files';
import { renameShot } from '../shots/store';
import { changeShot } from '../shots/change';
import { film, HEIGHT, shownIn, WIDTH } from './clipFilms';
import { codeOf, look, recorded, wanted } from './clipLib';
import { at, begin, finish, jsonRequest, request, testFolder } from './setup';

beforeAll(begin, 60_000);
afterAll(finish);

const COUNT = 15;

async function linked(
  more: object = {},
  wish: object = {},
): Promise<{ id: string; link: Link; job: string }> {
  const { id } = await recorded(film(COUNT), { title: 'Seeds' });
  await renameShot(id, 'Seeds');
  const { id: job } = await wanted(id, { folderId: null, format: 'mp4', ...wish });
  const answer = await links(jsonRequest('/x', 'POST', { job, ...more }), at({ id }));
  expect(answer.status).toBe(201);
  return { id, job, link: linkSchema.parse(await answer.json()) };
}

/** Where a page says that its film is. */
async function filmOf(link: Link, now = new Date()): Promise<string> {
  const { status, body } = await answerLink(link.path, { now });
  expect(status).toBe(200);
  return /<video src="([^"]+)"/.exec(Buffer.from(body).toString())?.[1] ?? '';
}

const get = (path: string, headers: Record<string, string> = {}): Promise<Response> =>
  view(request(path, { headers: { host: `127.0.0.1:${env().port}`, ...headers } }));

const films = (): string[] => readdirSync(mediaDir()).filter((name) => name.includes('.link.'));

describe('a link to a clip', () => {
  test('plays the film by the browser’s own player, in pieces as they are asked for', async () => {
    const { id, link, job } = await linked();
    expect(link).toMatchObject({ title: 'Seeds', film: true, views: 0 });
    const bytes = readFileSync(writingPath(job, 'mp4'));
    const { body, headers } = await answerLink(link.path);
    const page = Buffer.from(body).toString();
    expect(page).toContain('<h1>Seeds</h1>');
    expect(page).toContain('poster="data:image/png;base64,');
    expect(headers['Content-Security-Policy']).toContain("media-src 'self'");
    const path = await filmOf(link);
    const whole = await get(path);
    expect([whole.status, whole.headers.get('content-type')]).toEqual([200, 'video/mp4']);
    expect(Buffer.from(await whole.arrayBuffer()).equals(bytes)).toBe(true);
    const part = await get(path, { range: 'bytes=100-299' });
    expect([part.status, part.headers.get('content-range')]).toEqual([
      206,
      `bytes 100-299/${bytes.length}`,
    ]);
    expect(Buffer.from(await part.arrayBuffer()).equals(bytes.subarray(100, 300))).toBe(true);
    expect((await get(path, { range: `bytes=${bytes.length}-` })).status).toBe(416);
    const file = `${testFolder('linked')}/film.mp4`;
    writeFileSync(file, Buffer.from(await (await get(path)).arrayBuffer()));
    expect(shownIn(file).numbers).toEqual(Array.from({ length: COUNT }, (_, n) => n));
    // Two pages were seen; fetching the film is none.
    const { links: listed } = (await (await list(request('/x'), at({ id }))).json()) as {
      links: Link[];
    };
    expect(listed).toMatchObject([{ id: link.id, views: 2, film: true }]);
  });

  test('is one view however often its film is fetched, and nobody gets that without the page', async () => {
    const { link } = await linked({ mostViews: 1 });
    const other = await linked();
    expect((await answerLink(link.path, { look: true })).status).toBe(200);
    const now = new Date();
    const path = await filmOf(link, now);
    expect((await answerLink(link.path)).status).toBe(404);
    expect((await get(path)).status).toBe(200);
    const fetched = async (address: string, when = now) =>
      (await answerLink(address, { now: when, look: true })).status;
    expect(await fetched(path)).toBe(200);
    const [film = '', ticket = ''] = path.split('?seen=');
    expect(await fetched(film)).toBe(404);
    expect(await fetched(`${film}?seen=${ticket.slice(0, -1)}`)).toBe(404);
    expect(await fetched(path.replace(/seen=\d/, 'seen=9'))).toBe(404);
    expect(await fetched(`${other.link.path}.film?seen=${ticket}`)).toBe(404);
    // Not for ever, and not beyond the time at which the link ends.
    expect(await fetched(path, new Date(now.getTime() + 7 * 3_600_000))).toBe(404);
    const short = await linked({ days: 0.01 });
    const soon = await filmOf(short.link);
    expect(await fetched(soon)).toBe(200);
    expect(await fetched(soon, new Date(Date.now() + 1_000_000))).toBe(404);
  });

  test('taken back it is gone at once, film and all; others stay', async () => {
    const before = films();
    const { link } = await linked();
    const [own = ''] = films().filter((name) => !before.includes(name));
    const stays = await linked();
    const path = await filmOf(link);
    await takeBack(link.id);
    expect((await answerLink(link.path)).status).toBe(404);
    expect((await answerLink(path)).status).toBe(404);
    expect(own).not.toBe('');
    expect(films()).not.toContain(own);
    await sweepMedia();
    expect((await get(await filmOf(stays.link))).status).toBe(200);
  });

  test('without words says none, in its file neither; what is no film, or not written, is refused', async () => {
    const before = films();
    const { id, link, job } = await linked({ words: false }, { words: false });
    const page = Buffer.from((await answerLink(link.path)).body).toString();
    expect(page).not.toContain('Seeds');
    const [name = ''] = films().filter((one) => !before.includes(one));
    const tags = execFileSync('ffprobe', [
      '-loglevel',
      'error',
      '-show_format',
      `${mediaDir()}/${name}`,
    ]);
    expect(tags.toString()).not.toContain('Seeds');
    const asked = async (wish: object) =>
      codeOf(await links(jsonRequest('/x', 'POST', wish), at({ id })));
    const told = await wanted(id, { folderId: null, format: 'webm' });
    expect(await asked({ job: told.id, words: false })).toEqual([400, 'does-not-fit']);
    const gif = await wanted(id, { folderId: null, format: 'gif' });
    expect(await asked({ job: gif.id })).toEqual([400, 'does-not-fit']);
    expect(await asked({ job: id })).toEqual([404, 'not-found']);
    // Something may be hidden by now.
    const { told: clip } = await look(id);
    const document = { ...untouched({ width: WIDTH, height: HEIGHT }), description: 'Two beds' };
    await changeShot(id, { revision: clip?.state === 'ready' ? clip.marksRevision : 0, document });
    expect(await asked({ job, words: false })).toEqual([409, 'stale']);
    const other = await recorded(film(3));
    expect(
      await codeOf(await links(jsonRequest('/x', 'POST', { job }), at({ id: other.id }))),
    ).toEqual([404, 'not-found']);
  });

  test('is played through the second door, too', async () => {
    const { link, job } = await linked();
    const free = createServer().listen(0, '127.0.0.1');
    await new Promise((done) => free.once('listening', done));
    const { port } = free.address() as AddressInfo;
    await new Promise((done) => free.close(done));
    await openLinks(port, () => Promise.resolve());
    try {
      const door = `http://127.0.0.1:${port}`;
      const page = await (await fetch(door + link.path)).text();
      const path = /<video src="([^"]+)"/.exec(page)?.[1] ?? '';
      const part = await fetch(door + path, { headers: { range: 'bytes=0-99' } });
      expect([part.status, part.headers.get('content-length')]).toEqual([206, '100']);
      const bytes = readFileSync(writingPath(job, 'mp4'));
      expect(Buffer.from(await part.arrayBuffer()).equals(bytes.subarray(0, 100))).toBe(true);
      const head = await fetch(door + path, { method: 'HEAD' });
      expect([head.status, head.headers.get('content-length')]).toEqual([
        200,
        String(bytes.length),
      ]);
      expect((await fetch(`${door}${link.path}.film`)).status).toBe(404);
    } finally {
      await openLinks(null, () => Promise.resolve());
    }
  });
});

test('a message takes the file that was written, but not after what lies on the clip was changed', async () => {
  const { id, marksRevision } = await recorded(film(COUNT), { title: 'Seeds' });
  const post = (job: string, more: object = {}): Promise<Response> =>
    mail(jsonRequest('/x', 'POST', { job, ...more }), at({ id }));
  for (const [format, extension, type] of [
    ['mp4', 'mp4', 'video/mp4'],
    ['apng', 'png', 'image/apng'],
  ] as const) {
    const { id: job } = await wanted(id, { folderId: null, format });
    const answer = await post(job, { to: 'wren@fernhollow.example', text: 'Look.' });
    expect(answer.headers.get('content-disposition')).toContain('Seeds.eml');
    const read = await simpleParser(Buffer.from(await answer.arrayBuffer()));
    expect([read.subject, read.text?.split('\n')[0]]).toEqual(['Seeds', 'Look.']);
    const [attached] = read.attachments;
    expect([attached?.filename, attached?.contentType]).toEqual([`Seeds.${extension}`, type]);
    expect(attached?.content.equals(readFileSync(writingPath(job, extension)))).toBe(true);
    expect((await post(job, { drop: true })).status).toBe(201);
  }
  const { id: job } = await wanted(id, { folderId: null, format: 'gif' });
  const document = { ...untouched({ width: WIDTH, height: HEIGHT }), description: 'Two beds' };
  await changeShot(id, { revision: marksRevision, document });
  expect(await codeOf(await post(job))).toEqual([409, 'stale']);
  expect(await codeOf(await post(id))).toEqual([404, 'not-found']);
});
