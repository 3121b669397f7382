import { afterAll, beforeAll, test } from '@jest/globals';
import { chmodSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { randomFrom } from '@/core/random/random';
import { LongPage } from '@/core/stitch/longPage';
import { Turns } from '@/core/stitch/turns';
import { XDisplay } from '@/tests/lib/xDisplay';
import { report } from './measure';

/** Windows that nobody has looked at: measured as they fall. */
const SEED = 20_261_304;
const LINES = 120;
const SIZE = { width: 640, height: 480 };
/** As high as all of it, and more. */
const HIGH = 3_600;
/** Where scroll bars are, px: they say how far it is, and are no part of the page. */
const BAR = 30;
/** … and below them their own foot and margin. */
const FOOT = 60;
/** A program is through with a turn of the wheel after so long, ms. */
const SETTLES = 350;
/** … and has underlined every word that it does not know, ms. */
const STANDS = 9_000;

let display: XDisplay;
beforeAll(async () => {
  display = await XDisplay.open(1200, HIGH + 100);
}, 60_000);
afterAll(() => display.close());

/** Lines as people write them: alike, blank and of every length. */
function lines(): string {
  const next = randomFrom(SEED);
  const words = ['bed', 'seed', 'row', 'frost', 'sown', 'Meadow', 'checked', '—', 'S-48', 'label'];
  const line = (i: number) => {
    if (next() < 0.15) return '';
    if (next() < 0.3) return `FH-${2_000 + 7 * i}   bed ${(i * i) % 97}   sown 4 March`;
    const count = 1 + Math.floor(next() * 9);
    return Array.from({ length: count }, () => words[Math.floor(next() * words.length)]).join(' ');
  };
  return `${Array.from({ length: LINES }, (_, i) => line(i)).join('\n')}\n`;
}

interface Program {
  name: string;
  start: (file: string, high: boolean) => [program: string, ...args: string[]];
  /** Shows its end first. */
  endFirst?: true;
}
const programs: readonly Program[] = [
  { name: 'l3afpad (GTK 3)', start: (file) => ['l3afpad', file] },
  {
    name: 'featherpad (Qt)',
    // Run by the owner of the computer it lays a warning over its page.
    start: (file) => [
      ...(['setpriv', '--reuid=65534', '--regid=65534', '--clear-groups'] as const),
      ...['env', `HOME=${dirname(file)}`, 'featherpad', '--standalone', file],
    ],
  },
  { name: 'gnome-text-editor (GTK 4)', start: (file) => ['gnome-text-editor', '-s', file] },
  {
    name: 'xterm',
    start: (file, high) => [
      ...(['xterm', '-sl', '500', '-T', 'beds', '-sb', '-rightbar', '-geometry'] as const),
      ...[
        high ? '80x200' : '80x24',
        '-e',
        'sh',
        '-c',
        `printf '\\033[?25l'; cat ${file}; sleep 600`,
      ],
    ],
    endFirst: true,
  },
];
/** So often a window is looked at for what changes on it by itself. */
const LOOKS = 4;
const rest = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** A window whose title says so; programs add words of their own. */
async function windowOf(words: string): Promise<string> {
  for (let tries = 0; tries < 200; tries += 1) {
    const listed = await display.run('wmctrl', '-l').catch(() => '');
    const [id] =
      listed
        .split('\n')
        .find((line) => line.includes(words))
        ?.split(' ') ?? [];
    if (id) return id;
    await rest(100);
  }
  throw new Error(`No window says ${words}.`);
}

/** Starts it in this size. @returns its window, and how it is ended */
async function open(program: Program, file: string, height: number) {
  const end = display.start(...program.start(file, height > SIZE.height));
  const id = await windowOf('beds');
  await display.run('wmctrl', '-i', '-r', id, '-e', `0,20,20,${SIZE.width},${height}`);
  await rest(STANDS);
  return { id, end };
}

/** Scrolls it to its end, and joins what is seen of it. */
async function joined(program: Program, file: string) {
  const { id, end } = await open(program, file, SIZE.height);
  await display.run('xdotool', 'mousemove', '300', '300');
  if (program.endFirst)
    await display.run('xdotool', 'click', '--repeat', '200', '--delay', '5', '4');
  await rest(SETTLES);
  const look = async () => {
    const { data, width, height } = await display.pixels(id);
    return { data: new Uint8ClampedArray(data), width, height };
  };
  const first = await look();
  const long = new LongPage(first, { waits: true });
  const turns = new Turns();
  long.add(first);
  let clicks: number | null = turns.next(null);
  for (;;) {
    if (clicks) await display.run('xdotool', 'click', '--repeat', String(clicks), '5');
    await rest(clicks ? SETTLES : 50);
    const next = turns.saw(long.add(await look()), long.progress);
    if (next === 'end') break;
    clicks = next === 'wait' ? null : next.clicks;
  }
  await end();
  return long;
}

/** A caret that blinks is on one picture and not on another: its rows are no truth. */
async function standing(id: string) {
  const truth = await display.pixels(id);
  const restless = new Set<number>();
  for (let look = 0; look < LOOKS; look += 1) {
    await rest(SETTLES);
    const { data, width } = await display.pixels(id);
    for (let y = 0; y < truth.height; y += 1) {
      const [from, to] = [y * width * 4, (y + 1) * width * 4];
      if (!data.subarray(from, to).equals(truth.data.subarray(from, to))) restless.add(y);
    }
  }
  return { truth, restless };
}

test('windows of real programs, against themselves as high as all of it', async () => {
  let equal = 0;
  for (const program of programs) {
    const file = join(mkdtempSync(join(tmpdir(), 'rezzik-long-')), 'beds.txt');
    writeFileSync(file, lines());
    chmodSync(dirname(file), 0o777);
    const long = await joined(program, file);
    const [whole, ...more] = long.joined();
    const { id, end } = await open(program, file, HIGH);
    const { truth, restless } = await standing(id);
    await end();
    if (!whole || more.length > 0) {
      report(`… ${program.name}`, `${more.length + 1} pieces`, 'a gap that is said');
      continue;
    }
    // Beside what is scrolled a window that is higher may lay things out in another way.
    const { x, y: top, width } = long.progress.part;
    const right = Math.min(x + width, whole.width - BAR);
    let [rows, counted] = [0, 0];
    for (let y = top; y < whole.height - FOOT; y += 1) {
      if (restless.has(y)) continue;
      counted += 1;
      const [a, b] = [whole, truth].map((picture) =>
        Buffer.from(
          picture.data.buffer,
          picture.data.byteOffset + (y * picture.width + x) * 4,
          (right - x) * 4,
        ),
      );
      if (a && b && a.equals(b)) rows += 1;
    }
    if (rows === counted) equal += 1;
    report(`… ${program.name}`, `${rows} of ${counted}`, `rows, ${whole.width} × ${whole.height}`);
  }
  report('Windows of real programs equal to the pixel', `${equal} of ${programs.length}`);
}, 300_000);
