import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import * as againRoute from '@/app/api/shots/[id]/words/route';
import { wordsSchema } from '@/core/contracts/search';
import type { ShotDocument } from '@/core/document/document';
import { untouched } from '@/core/document/view';
import { markSchema } from '@/core/marks/registry';
import { everyMark } from '@/tests/lib/marks';
import { sql } from '../db/sql';
import { workAlone } from '../jobs/run';
import { findShots } from '../search/find';
import { changeSettings } from '../settings/settings';
import { changeShot } from '../shots/change';
import { dropTheRest } from '../erase/dropRest';
import { binShot, eraseShot, storeShot } from '../shots/store';
import { progress, retryStopped, wantMissing } from '../reading/reading';
import { languages } from '../reading/recognise';
import { personActs } from '../words/quiet';
import { packWords, unpackParagraphs } from '../words/rows';
import { shippedRecognise } from '../reading/shipped';
import { readTsv } from '../reading/tsv';
import { at, begin, finish, request } from './setup';
import { linesOf, readAll, screen, SCREEN as SIZE } from './words';
import { shared } from '../base/shared';

const path = process.env.PATH ?? '';

let order: Buffer;
beforeAll(async () => {
  await begin();
  order = await screen('Order received', 'Secret orchid 4711', 'Frost cover');
});
afterAll(finish);
afterEach(() => {
  process.env.PATH = path;
});

const wordsOf = async (id: string) => {
  const answer = await againRoute.GET(request(`/api/shots/${id}/words`), at({ id }));
  return wordsSchema.parse(await answer.json());
};
const textOf = async (id: string) => (await wordsOf(id)).words.map((w) => w.text).join(' ');
const found = async (q: string) =>
  (await findShots({ q, order: 'day', limit: 50, bin: false })).shots.map((s) => s.id);
/** A file on the way to the recogniser that does something else. */
function pretend(script: string): void {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-reader-'));
  writeFileSync(join(folder, 'tesseract'), `#!/bin/sh\n${script}\n`);
  chmodSync(join(folder, 'tesseract'), 0o755);
  process.env.PATH = `${folder}:${path}`;
}
const LISTS = '[ "$1" = --list-langs ] && printf "List:\\neng\\nosd\\n" && exit 0';

const cover = (y: number) =>
  markSchema.parse({
    ...{ id: 'h', kind: 'cover', area: 'box', colour: '#000000' },
    ...{ x: 0, y, width: SIZE.width, height: 34 },
  });
const covering = (y: number): ShotDocument => ({ ...untouched(SIZE), marks: [cover(y)] });

describe('reading', () => {
  test('what is on a screen is found by it, each word where it stands', async () => {
    const { id } = await storeShot({ picture: order, title: 'A' });
    expect(await wordsOf(id)).toMatchObject({ state: 'waiting', words: [] });
    await readAll();
    const { state, words } = await wordsOf(id);
    expect(state).toBe('read');
    expect(words.map((w) => w.text)).toEqual([
      ...['Order', 'received', 'Secret', 'orchid', '4711', 'Frost', 'cover'],
    ]);
    expect(words.map((w) => w.line)).toEqual([0, 0, 1, 1, 1, 2, 2]);
    const [first] = words;
    expect(Math.abs((first?.box.x ?? 0) - 12)).toBeLessThan(4);
    expect(Math.abs((first?.box.y ?? 0) + (first?.box.height ?? 0) - 30)).toBeLessThan(4);
    expect(await found('"secret orchid"')).toEqual([id]);
  });

  test('what is hidden or outside the view is not; what was read is forgotten at once', async () => {
    const { id } = await storeShot({ picture: order, title: 'B' });
    await readAll();
    expect(await found('orchid ')).toContain(id);
    await changeShot(id, { revision: 1, document: covering(44) });
    // Before it is read again.
    expect(await found('orchid ')).not.toContain(id);
    expect(await textOf(id)).toBe('');
    await readAll();
    expect(await textOf(id)).toBe('Order received Frost cover');
    const crop = { x: 0, y: 0, width: SIZE.width, height: 44 };
    await changeShot(id, { revision: 2, document: { ...untouched(SIZE), view: { crop } } });
    await readAll();
    expect(await textOf(id)).toBe('Order received');
  });

  test('two shots that differ only under a Hide mark give the same index', async () => {
    const other = await screen('Order received', 'Quite other 0815', 'Frost cover');
    const provenance = { source: 'api' as const, takenAt: '2026-03-03T10:00:00Z' };
    const ids: string[] = [];
    for (const picture of [order, other]) {
      const { id } = await storeShot({ picture, title: 'C', document: covering(44), provenance });
      ids.push(id);
    }
    await readAll();
    const rows = await sql()<{ all: string }[]>`
      select x.tokens::text || x.sequence || w.lines || encode(w.boxes, 'hex') as all
      from search x join words w on w.shot_id = x.shot_id where x.shot_id = any(${ids}::uuid[])`;
    expect(rows).toHaveLength(2);
    expect(rows[0]?.all).toBe(rows[1]?.all);
    expect(rows[0]?.all).toContain('frost');
  });

  test('a description or a name changes nothing that was read; an arrow lets it stand until then', async () => {
    const { id } = await storeShot({ picture: order, title: 'D' });
    await readAll();
    const document = { ...untouched(SIZE), description: 'An order' };
    await changeShot(id, { revision: 1, document });
    expect(await wordsOf(id)).toMatchObject({ state: 'read', revision: 2 });
    const [arrow] = everyMark.filter(({ kind }) => kind === 'arrow');
    if (!arrow) throw new Error('no arrow');
    await changeShot(id, { revision: 2, document: { ...document, marks: [arrow] } });
    expect(await wordsOf(id)).toMatchObject({ state: 'waiting', revision: 2 });
    expect(await found('orchid ')).toContain(id);
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'read', revision: 3 });
  });

  test('dropped for good, nothing of what was hidden is left in any table', async () => {
    const { id } = await storeShot({ picture: await screen('Zanzibar'), title: 'E' });
    await readAll();
    expect(await found('zanzibar ')).toEqual([id]);
    await changeShot(id, { revision: 1, document: covering(4) });
    await dropTheRest(id, 2, false);
    await readAll();
    expect(await found('zanzibar')).toEqual([]);
    for (const table of ['words', 'search', 'known_words']) {
      const rows = await sql()`select * from ${sql()(table)}`;
      expect(JSON.stringify(rows).toLowerCase()).not.toContain('zanzibar');
    }
  });

  test('erased while it is read: nothing of it comes back', async () => {
    const { id } = await storeShot({ picture: await screen('Xylophone'), title: 'F' });
    pretend(`${LISTS}; sleep 0.5; PATH='${path}' exec tesseract "$@"`);
    const reading = readAll();
    await until(async () => (await wordsOf(id)).state === 'reading');
    await binShot(id);
    await eraseShot(id);
    await reading;
    expect(await sql()`select 1 from words where shot_id = ${id}`).toHaveLength(0);
    expect(await sql()`select 1 from jobs where id = ${id}`).toHaveLength(0);
  });
});

async function until(test: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 400; i += 1) {
    if (await test()) return;
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
  throw new Error('waited in vain');
}

describe('when it may', () => {
  test('switched off nothing is read, and what was read stays', async () => {
    const { id } = await storeShot({ picture: order, title: 'G' });
    await changeSettings({ readWords: false });
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'off' });
    await changeSettings({ readWords: true });
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'read' });
  });

  test('while a person takes or marks it stands still, and goes on afterwards', async () => {
    const { id } = await storeShot({ picture: order, title: 'H' });
    await sql()`update jobs set due_at = now() where id = ${id}`;
    // Storing is an act itself: nothing is begun.
    await workAlone('words');
    expect(await wordsOf(id)).toMatchObject({ state: 'waiting' });
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'read' });
  });

  test('a reader in the middle of its work is held up by a person, and goes on', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'rezzik-pid-')), 'pid');
    pretend(`${LISTS}; echo $$ > ${file}; sleep 0.5; PATH='${path}' exec tesseract "$@"`);
    const { id } = await storeShot({ picture: order, title: 'P' });
    const reading = readAll();
    await until(() => Promise.resolve(existsSync(file) && readFileSync(file, 'utf8') !== ''));
    personActs();
    // Source: proc(5), the third field of stat: T is stopped.
    const state = () =>
      readFileSync(`/proc/${readFileSync(file, 'utf8').trim()}/stat`, 'utf8').split(') ')[1]?.[0];
    await until(() => Promise.resolve(state() === 'T'));
    await reading;
    expect(await wordsOf(id)).toMatchObject({ state: 'read' });
  });

  test('two servers on one database read each shot once', async () => {
    const log = join(mkdtempSync(join(tmpdir(), 'rezzik-log-')), 'log');
    pretend(`${LISTS}; echo x >> ${log}; PATH='${path}' exec tesseract "$@"`);
    const small = await screen('Hoe');
    for (let i = 0; i < 4; i += 1) await storeShot({ picture: small, title: `I ${i}` });
    // What one process keeps for itself, another has of its own.
    const first = readAll();
    const { alone } = shared('jobs', () => ({ alone: new Set<string>() }));
    await until(() => Promise.resolve(alone.has('words')));
    alone.delete('words');
    await Promise.all([first, workAlone('words')]);
    expect(readFileSync(log, 'utf8').match(/x/g)).toHaveLength(4);
  });
});

describe('a recogniser in trouble', () => {
  test('one that fails is tried again a few times, then left until a person asks', async () => {
    pretend(`${LISTS}; echo out of ink >&2; exit 3`);
    const { id } = await storeShot({ picture: order, title: 'J' });
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'waiting' });
    for (let i = 0; i < 3; i += 1) await readAll();
    const stopped = await wordsOf(id);
    expect(stopped.state).toBe('stopped');
    expect(stopped.problem).toContain('out of ink');
    expect((await progress()).stopped).toBe(1);
    process.env.PATH = path;
    await retryStopped();
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'read', problem: null });
  });

  test('one that hangs is ended; what it waits for others does not count', async () => {
    process.env.REZZIK_READING_MS = '300';
    pretend(`${LISTS}; exec sleep 60`);
    const { id } = await storeShot({ picture: order, title: 'O' });
    await readAll();
    expect(await wordsOf(id)).toMatchObject({
      state: 'waiting',
      problem: 'Reading this picture took too long.',
    });
    delete process.env.REZZIK_READING_MS;
    process.env.PATH = path;
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'read' });
  });

  test('one that gives nonsense gives no words and no error', async () => {
    pretend(
      `${LISTS}; cat > /dev/null; printf '5\\tx\\n5\\t1\\t1\\t1\\t1\\t1\\ta\\tb\\tc\\td\\t9\\tword\\n\\0\\0'`,
    );
    const { id } = await storeShot({ picture: order, title: 'K' });
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'read', words: [] });
  });

  test('one that was removed: the one that ships with the app reads', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'rezzik-none-'));
    mkdirSync(join(folder, 'bin'));
    process.env.PATH = folder;
    expect(await languages()).toEqual({ installed: false, languages: ['eng'] });
    const picture = await sharp(order)
      .greyscale()
      .resize(SIZE.width * 2)
      .png()
      .toBuffer();
    const read = await shippedRecognise({ picture, scale: 2 }, new AbortController().signal);
    expect(read.flat(2).map((w) => w.text)).toContain('orchid');
  });

  test('the one that ships is held up by a person and ended, too', async () => {
    const stop = new AbortController();
    const reading = shippedRecognise({ picture: order, scale: 1 }, stop.signal);
    const ended = expect(reading).rejects.toThrow('failed');
    const child = () =>
      readFileSync(`/proc/self/task/${process.pid}/children`, 'utf8')
        .split(' ')
        .find((id) => id && readFileSync(`/proc/${id}/cmdline`, 'utf8').includes('readWords'));
    await until(() => Promise.resolve(child() !== undefined));
    const id = child() ?? '';
    // Source: proc(5), the fields of stat after the name: state, and the 17th, how nice it is.
    const stat = () => readFileSync(`/proc/${id}/stat`, 'utf8').split(') ')[1]?.split(' ') ?? [];
    await until(() => Promise.resolve(stat()[16] === '19'));
    personActs();
    await until(() => Promise.resolve(stat()[0] === 'T'));
    stop.abort();
    await ended;
  });

  test('a language that is missing is no reason not to read', async () => {
    await changeSettings({ wordsLanguage: 'tlh' });
    const { id } = await storeShot({ picture: order, title: 'L' });
    await readAll();
    expect(await textOf(id)).toContain('orchid');
    await changeSettings({ wordsLanguage: 'eng' });
  });

  test('asked again by a person it is read again; a shot that is not there is said', async () => {
    const { id } = await storeShot({ picture: order, title: 'M' });
    await readAll();
    const again = (one: string) =>
      againRoute.POST(request(`/api/shots/${one}/words`, { method: 'POST' }), at({ id: one }));
    expect((await again(id)).status).toBe(202);
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'read' });
    expect((await again('00000000-0000-4000-8000-000000000000')).status).toBe(404);
  });
});

describe('what is kept of it', () => {
  test('words and boxes are what they were', () => {
    const paragraphs = [...linesOf('Order received\nSX-48'), ...linesOf('🌱 שורשים')];
    const { lines, boxes } = packWords(paragraphs);
    expect(unpackParagraphs(lines, boxes)).toEqual(paragraphs);
    expect(boxes.length).toBe(8 * 5);
  });
  test('odd words and boxes are bounded, lost bytes are no error', () => {
    const odd = { text: 'a \n\0b', box: { x: -5, y: 1e9, width: NaN, height: 3.6 } };
    const blank = { text: ' ', box: { x: 0, y: 0, width: 1, height: 1 } };
    const { lines, boxes } = packWords([[[odd, blank]], [[blank]]]);
    expect(unpackParagraphs(lines, boxes)).toEqual([
      [[{ text: 'ab', box: { x: 0, y: 65_535, width: 0, height: 4 } }]],
    ]);
    expect(unpackParagraphs('a b', Buffer.alloc(3))).toHaveLength(1);
    expect(unpackParagraphs(null, null)).toEqual([]);
  });
  test('the recogniser’s table: lines and paragraphs by its own numbers', () => {
    const row = (numbers: number[], text: string) => [...numbers, 90, text].join('\t');
    const table = [
      'level\tpage_num\tblock_num\tpar_num\tline_num\tword_num\tleft\ttop\twidth\theight\tconf\ttext',
      row([4, 1, 1, 1, 1, 0, 0, 0, 9, 9], ''),
      row([5, 1, 1, 1, 1, 1, 20, 10, 40, 12], 'Order'),
      row([5, 1, 1, 1, 1, 2, 70, 10, 40, 12], 'tab\tin it'),
      row([5, 1, 1, 1, 2, 1, 20, 30, 40, 12], 'next'),
      row([5, 1, 2, 1, 1, 1, 20, 90, 40, 12], 'apart'),
      row([5, 1, 2, 1, 1, 2, 20, 90, 40, 12], '   '),
    ].join('\n');
    const read = readTsv(table, 2);
    expect(read.map((p) => p.map((l) => l.map((w) => w.text)))).toEqual([
      [['Order', 'tab in it'], ['next']],
      [['apart']],
    ]);
    expect(read[0]?.[0]?.[0]?.box).toEqual({ x: 10, y: 5, width: 20, height: 6 });
  });
  test('shots from before words were read wait for it as well', async () => {
    const { id } = await storeShot({ picture: order, title: 'N' });
    await sql()`delete from words where shot_id = ${id}`;
    expect(await wordsOf(id)).toMatchObject({ words: [] });
    await wantMissing();
    await readAll();
    expect(await wordsOf(id)).toMatchObject({ state: 'read' });
  });
});
