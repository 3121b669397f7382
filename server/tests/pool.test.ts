import type { Size } from '@/core/geometry/size';
import { readdirSync, readFileSync } from 'node:fs';
import { getPriority } from 'node:os';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { setImmediate } from 'node:timers/promises';
import { beforeAll, describe, expect, jest, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { markSchema } from '@/core/marks/registry';
import { randomFrom } from '@/core/random/random';
import { untouched } from '@/core/document/view';
import { sql } from '../db/sql';
import { flatten, type Pixels } from '../paint/flatten';
import { paintedPixels } from '../pictures/painted';
import { serverShaper } from '../paint/shaper';
import { formats } from '../formats';
import { plainPng } from '../formats/png';
import { holding, run } from '../pool/pool';
import { getPaintable } from '../shots/rows';
import { storeShot } from '../shots/store';
import { begin, finish } from './setup';

jest.setTimeout(120_000);

const SIZE = { width: 960, height: 600 };

/** Grain: everything in it has an edge, so that every task has much to do. */
function grain({ width, height }: Size): Pixels {
  const next = randomFrom(11);
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < data.length; i += 1) data[i] = i % 4 === 3 ? 255 : next() * 256;
  return { data, width, height, opaque: true };
}

let picture: Pixels;
/** The same with every colour turned round, as a file. */
let other: Uint8Array;
let small: Pixels;
let smallFile: Uint8Array;
let bmpFile: Uint8Array;
let shot: Parameters<typeof flatten>[0];
beforeAll(async () => {
  picture = grain(SIZE);
  const turned = picture.data.map((v, i) => (i % 4 === 3 ? v : 255 - v));
  other = await plainPng({ ...picture, data: turned });
  small = grain({ width: 64, height: 48 });
  smallFile = await plainPng(small);
  const canvas = createCanvas(SIZE.width, SIZE.height);
  canvas.getContext('2d').fillRect(100, 100, 600, 400);
  const marks = Array.from({ length: 6 }, (_, i) =>
    markSchema.parse({
      id: `m${i}`,
      kind: i % 3 ? 'blocks' : 'blur',
      x: i * 9,
      y: i * 7,
      width: 300,
      height: 200,
    }),
  );
  const view = {
    ...untouched(SIZE).view,
    turn: { quarters: 0 as const, mirrored: false, angle: 3 },
  };
  shot = {
    frame: canvas.toBuffer('image/png'),
    opaque: true,
    document: { ...untouched(SIZE), view, marks },
  };
  bmpFile = await formats.bmp.encode(toWrite().source, toWrite().wish);
});

const pixels = SIZE.width * SIZE.height;
/** What writing a file needs beside its format. */
const toWrite = () => ({
  source: {
    pixels: picture,
    shot,
  },
  wish: {
    ...{ quality: 85, options: { depth: '24' }, background: '#FFFFFF' },
    facts: { title: '', description: '', origin: '', takenAt: '', software: '', density: 96 },
  },
});
/** A small picture and the file of it. */
const alike = () => ({ before: small, file: smallFile, background: '#FFFFFF' });
const everything = () => [
  run('flatten', shot, { pixels }),
  run('compare', { before: picture, file: other, background: '#FFFFFF' }, { pixels }),
  run('encode', { format: 'bmp', ...toWrite() }, { pixels }),
  run('encode', { format: 'svg', ...toWrite() }, { pixels }),
  run('decodeBmp', { bytes: bmpFile }, { pixels }),
  run('smallestWords', picture, { pixels }),
  run('parts', { picture, within: 60_000 }, { pixels }),
];

test('what a thread paints is, to the byte, what is painted here', async () => {
  const there = await run('flatten', shot, { pixels });
  const here = await flatten(shot, await serverShaper());
  expect([there.width, there.height, there.opaque]).toEqual([here.width, here.height, here.opaque]);
  expect(Buffer.from(there.data).equals(Buffer.from(here.data))).toBe(true);
});

test('threads that paint let everything else go first', async () => {
  await run('smallestWords', small, { pixels: 1 });
  // The 17th field behind a thread's name is how much it yields (proc(5), stat).
  const yielding = readdirSync('/proc/self/task').map((thread) => {
    const stat = readFileSync(`/proc/self/task/${thread}/stat`, 'utf8');
    return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[16]);
  });
  expect(Math.max(...yielding)).toBeGreaterThan(getPriority());
});

test('a file written or read in a thread is, to the byte, what is written or read here', async () => {
  for (const format of ['bmp', 'svg'] as const) {
    const there = await run('encode', { format, ...toWrite() }, { pixels });
    const { source, wish } = toWrite();
    const here = await formats[format].encode(source, wish);
    expect(Buffer.from(there).equals(here)).toBe(true);
  }
  const { data, opaque } = await run('decodeBmp', { bytes: bmpFile }, { pixels });
  expect(opaque).toBe(true);
  // Of a fourth byte that says nothing, nothing is expected.
  const colours = (all: Uint8Array | Uint8ClampedArray) =>
    Buffer.from(all.filter((_, i) => i % 4 < 3));
  expect(colours(data).equals(colours(picture.data))).toBe(true);
});

test('the event loop stays free while much is worked out', async () => {
  await Promise.all(everything());
  const delay = monitorEventLoopDelay({ resolution: 5 });
  const begun = performance.now();
  delay.enable();
  await Promise.all([...everything(), ...everything()]);
  delay.disable();
  const took = performance.now() - begun;
  const [p99, most] = [delay.percentile(99) / 1e6, delay.max / 1e6];
  console.info(
    `14 tasks took ${took.toFixed(0)} ms; loop late by ${p99.toFixed(0)} ms at the 99th percentile, ${most.toFixed(0)} ms at most`,
  );
  expect(took).toBeGreaterThan(300);
  // One task on the loop would hold it for a good part of all that.
  expect(most).toBeLessThan(took / 8);
});

/** Ends all threads; those that come then may hold as much as is said, MB. */
async function otherThreads(memory?: string): Promise<void> {
  if (memory) process.env.REZZIK_THREAD_MB = memory;
  else delete process.env.REZZIK_THREAD_MB;
  const stop = new AbortController();
  const asked = Array.from({ length: 8 }, () =>
    run('parts', { picture, within: 60_000 }, { pixels: 1, signal: stop.signal }),
  );
  const settled = Promise.allSettled(asked);
  stop.abort(new Error('left'));
  await settled;
}

describe('a task', () => {
  test('that nobody waits for any more is ended, running or not yet begun', async () => {
    const stop = new AbortController();
    const asked = Array.from({ length: 8 }, () =>
      run('parts', { picture, within: 60_000 }, { pixels, signal: stop.signal }),
    );
    const settled = Promise.allSettled(asked);
    stop.abort(new Error('left'));
    for (const one of await settled) expect(one).toMatchObject({ status: 'rejected' });
    const { likeness } = await run('compare', alike(), { pixels: 1 });
    expect(likeness).toBeCloseTo(1);
  });

  test('that takes too long is ended in words, and the next one is done', async () => {
    await expect(
      run('parts', { picture, within: 60_000 }, { pixels, ms: 20 }),
    ).rejects.toMatchObject({
      ...{ status: 503, code: 'too-long' },
    });
    expect(await run('smallestWords', small, { pixels: 1 })).toBeDefined();
  });

  test('that holds too much is ended in words, and the next one is done', async () => {
    await otherThreads('96');
    // Far more words than a document may have.
    const text = 'pond '.repeat(200_000);
    const words = { ...{ id: 't', kind: 'text', x: 0, y: 0, width: 900 }, text, textSize: 8 };
    const one = { ...markSchema.parse({ ...words, text: 'pond', colour: '#000000' }), text };
    const document = { ...shot.document, marks: [one] };
    await expect(run('flatten', { ...shot, document }, { pixels })).rejects.toMatchObject({
      ...{ status: 503, code: 'too-much-memory' },
    });
    expect(await run('smallestWords', small, { pixels: 1 })).toBeDefined();
    await otherThreads();
  });

  test('that fails says why, and takes no other along', async () => {
    const wrong = { ...alike(), file: await plainPng(grain({ width: 48, height: 64 })) };
    const [failed, done] = await Promise.allSettled([
      run('compare', wrong, { pixels: 1 }),
      run('compare', alike(), { pixels: 1 }),
    ]);
    expect(failed).toMatchObject({ status: 'rejected', reason: { message: 'The sizes differ.' } });
    expect(done.status).toBe('fulfilled');
  });

  test('waits while all together would hold too much', async () => {
    const order: string[] = [];
    const note = (name: string) => () => void order.push(name);
    const large = 100_000_000;
    await Promise.all([
      run('parts', { picture, within: 60_000 }, { pixels: large }).then(note('long')),
      run('compare', alike(), { pixels: large }).then(note('short')),
    ]);
    expect(order).toEqual(['long', 'short']);
  });

  test('waits for what a library decodes meanwhile, and comes after what waits to be decoded', async () => {
    const order: string[] = [];
    const large = 100_000_000;
    let decoded = () => {};
    const first = holding(large, () => new Promise<void>((done) => (decoded = done)));
    const asked = run('compare', alike(), { pixels: large });
    const second = holding(large, () => Promise.resolve());
    const all = [asked.then(() => order.push('task')), second.then(() => order.push('decoding'))];
    await setImmediate();
    expect(order).toEqual([]);
    decoded();
    await Promise.all([first, ...all]);
    expect(order).toEqual(['decoding', 'task']);
  });
});

test('a painting that failed once is tried again, at the same revision', async () => {
  await begin();
  const { id } = await storeShot({ picture: Buffer.from(shot.frame), title: 'Failed once' });
  const [frame] = await sql()<{ id: string; bytes: Buffer }[]>`select f.id, f.bytes
    from frames f join shots s on s.frame_id = f.id where s.id = ${id}`;
  await sql()`update frames set bytes = ${Buffer.from('not there')} where id = ${frame?.id ?? ''}`;
  await expect(paintedPixels(await getPaintable(id))).rejects.toThrow();
  await sql()`update frames set bytes = ${frame?.bytes ?? null} where id = ${frame?.id ?? ''}`;
  expect(await paintedPixels(await getPaintable(id))).toMatchObject({
    width: SIZE.width,
    height: SIZE.height,
  });
  await finish();
});
