import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import sharp from 'sharp';
import { pageSchema, type Page } from '@/core/contracts/page';
import { practiceSite } from '../pages/practice/site';
import { takePage, type TakenPage } from '../pages/takePage';

let server: Server;
let site = '';
const asked: string[] = [];

const row = (i: number): string =>
  `<div style="height:50px;background:rgb(${(i * 7) % 256},${(i * 13) % 256},${(i * 29) % 256})">row${i}</div>`;

const hostile: Record<string, [headers: Record<string, string>, body: string, status?: number]> = {
  '/dialogs': [{}, '<script>alert(1);confirm(2);prompt(3)</script><h1>after</h1>'],
  '/download': [
    { 'Content-Type': 'application/zip', 'Content-Disposition': 'attachment; filename=a.zip' },
    'PK',
  ],
  '/login': [{ 'WWW-Authenticate': 'Basic realm="x"' }, 'no', 401],
  '/gone': [{}, '<h1>Not here</h1>', 404],
  '/long': [{}, `<body style="margin:0">${Array.from({ length: 250 }, (_, i) => row(i)).join('')}`],
  '/too-long': [{}, '<body style="margin:0"><div style="height:90000px">x</div>'],
  '/meta': [{ Location: 'http://169.254.169.254/latest/meta-data/' }, '', 302],
  '/file': [{ Location: 'file:///etc/passwd' }, '', 302],
  '/round': [{ Location: '/round' }, '', 302],
  '/reaches': [
    {},
    `<img src="http://169.254.169.254/a.png"><iframe src="http://localhost:PORT/inner"></iframe>
     <script>fetch('http://127.0.0.1:PORT/own'); new WebSocket('ws://localhost:PORT/socket');
       window.open('http://localhost:PORT/popup'); navigator.sendBeacon('http://localhost:PORT/beacon');
     </script><link rel="icon" href="http://localhost:PORT/icon.png">`,
  ],
};

beforeAll(async () => {
  server = createServer((request, response) => {
    const path = request.url ?? '';
    asked.push(`${request.headers.host ?? ''}${path}`);
    const [headers, body, status] = hostile[path] ?? [{}, 'nothing', 404];
    const { port } = server.address() as AddressInfo;
    response.writeHead(status ?? 200, { 'Content-Type': 'text/html', ...headers });
    response.end(body.replaceAll('PORT', String(port)));
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  site = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => void server.close());

const take = (address: string, wish: Partial<Page> = {}): Promise<TakenPage> =>
  takePage(
    pageSchema.parse({ address, wait: 0, width: 640, ...wish }),
    { hosts: new Set(['127.0.0.1']), doors: [] },
    () => undefined,
    new AbortController().signal,
  );
const pixels = async (bytes: Buffer) =>
  sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });

test('a long page, tiles joined to the pixel, with its words where they stand', async () => {
  const { bytes, words = [], title, address } = await take(`${site}/long`);
  const { data, info } = await pixels(bytes);
  expect([info.width, info.height]).toEqual([640, 12_500]);
  for (const i of [0, 79, 80, 81, 159, 160, 249]) {
    for (const y of [i * 50, i * 50 + 49])
      expect([...data.subarray((y * 640 + 600) * 4, (y * 640 + 600) * 4 + 3)]).toEqual([
        ...[(i * 7) % 256, (i * 13) % 256, (i * 29) % 256],
      ]);
  }
  const all = words.flat(2);
  expect(all).toHaveLength(250);
  const last = all.at(-1);
  expect(last?.text).toBe('row249');
  expect(last?.box.y).toBeGreaterThanOrEqual(249 * 50);
  expect(address).toBe(`${site}/long`);
  expect(title).toBe('');
}, 60_000);

test('the practice site: pictures that load late, scale, dark, first screen only', async () => {
  const garden = await practiceSite();
  const whole = await take(garden, { wait: 'quiet', scale: 2 });
  const { data, info } = await pixels(whole.bytes);
  expect(info.width).toBe(1280);
  expect(info.height).toBeGreaterThan(4_000);
  expect(whole.title).toBe('Garden · Fernhollow Botanic Garden');
  const pictures = (whole.parts ?? []).filter(({ words }) => words.startsWith('picture “'));
  expect(pictures).toHaveLength(24);
  // The last one is drawn, not left blank.
  const { x, y, width, height } = pictures.at(-1) ?? { x: 0, y: 0, width: 0, height: 0 };
  const colours = new Set<number>();
  for (let at = y + 4; at < y + height - 4; at += 3)
    for (let across = x + 4; across < x + width - 4; across += 3)
      colours.add(data.readUInt32LE((at * info.width + across) * 4));
  expect(colours.size).toBeGreaterThan(4);
  const first = await take(garden, { whole: false, dark: true, width: 1280 });
  const dark = await pixels(first.bytes);
  expect([dark.info.width, dark.info.height]).toEqual([1280, 800]);
  expect([...dark.data.subarray(dark.data.length - 4)]).toEqual([0x10, 0x20, 0x1b, 255]);
  expect(first.parts).toContainEqual(expect.objectContaining({ words: 'link “Seed list”' }));
}, 90_000);

test('an address that answers with a picture gives that picture', async () => {
  const { bytes, words } = await take(`${await practiceSite()}label.png`);
  expect(bytes.subarray(1, 4).toString()).toBe('PNG');
  expect((await sharp(bytes).metadata()).width).toBe(420);
  expect(words).toBeUndefined();
}, 60_000);

test.each([
  ['/download', 'download'],
  ['/login', 'login'],
  ['/meta', 'forbidden-address'],
  ['/file', 'no-page'],
  ['/round', 'no-page'],
])(
  '%s is refused in words',
  async (path, code) => {
    await expect(take(`${site}${path}`)).rejects.toMatchObject({ code });
  },
  60_000,
);

test('dialogs are answered by nobody and hold nothing up; what is not there is said', async () => {
  const { words } = await take(`${site}/dialogs`);
  expect(words?.flat(2).map(({ text }) => text)).toEqual(['after']);
  expect((await take(`${site}/gone`)).said).toEqual([
    'The site says that there is no such page (404).',
  ]);
}, 60_000);

test('a page that is longer than a picture may be ends there, and that is said', async () => {
  const { bytes, said } = await take(`${site}/too-long`, { width: 320 });
  expect((await sharp(bytes).metadata()).height).toBe(32_767);
  expect(said.join()).toContain('90000 pixels');
}, 90_000);

test('nothing that a page does by itself reaches what was not allowed', async () => {
  asked.length = 0;
  await take(`${site}/reaches`, { wait: 2 });
  expect(asked.filter((one) => one.startsWith('localhost'))).toEqual([]);
  expect(asked.some((one) => one.endsWith('/own'))).toBe(true);
}, 60_000);

test('one’s own network is asked about first; nobody is there is said', async () => {
  await expect(take(site.replace('127.0.0.1', 'localhost'))).rejects.toMatchObject({
    code: 'private-address',
  });
  await expect(take('http://nowhere.invalid/')).rejects.toMatchObject({ code: 'no-host' });
  await expect(take('http://127.0.0.1:1/')).rejects.toMatchObject({ code: expect.any(String) });
}, 60_000);

/** The ids of all that this process has started, and what they were told. */
function started(id: number | string = process.pid): { id: string; told: string }[] {
  const children = readdirSync(`/proc/${id}/task`).flatMap((thread) =>
    readFileSync(`/proc/${id}/task/${thread}/children`, 'utf8').split(' ').filter(Boolean),
  );
  return children.flatMap((child) => {
    try {
      const told = readFileSync(`/proc/${child}/cmdline`, 'utf8').replaceAll('\0', ' ');
      return [{ id: child, told }, ...started(child)];
    } catch {
      return [];
    }
  });
}

test.each(['--type=renderer', '--remote-debugging-pipe'])(
  'a browser that ends in the middle (%s) is said, and the next page is taken',
  async (which) => {
    asked.length = 0;
    const taken = take(`${site}/long`, { wait: 30 });
    let over = false;
    const settled = () => (over = true);
    taken.then(settled, settled);
    while (!over && !asked.some((one) => one.endsWith('/long'))) await pause(20);
    const hit = started().filter(({ told }) => told.includes(which));
    expect(hit).not.toHaveLength(0);
    for (const { id } of hit) {
      try {
        process.kill(Number(id), 'SIGKILL');
      } catch (error) {
        // One that was hit before took it with it.
        expect(error).toMatchObject({ code: 'ESRCH' });
      }
    }
    await expect(taken).rejects.toMatchObject({ code: 'page-crashed', status: 422 });
    expect((await take(`${site}/long`, { whole: false })).bytes.length).toBeGreaterThan(100);
  },
  60_000,
);
