import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import sharp from 'sharp';
import { By } from 'selenium-webdriver';
import { z } from 'zod';
import type { ReadablePixels } from '@/core/raster/pixels';
import { contains, centre, type Rect } from '@/core/geometry/rect';
import { tokensOf } from '@/core/search/fold';
import { closeAccessibilityBus } from '@/server/accessibility/bus';
import { closeScreen } from '@/server/display/connection';
import { closeSessionBus } from '@/server/bus/bus';
import { enlarged } from '@/server/reading/enlarged';
import { recognise } from '@/server/reading/recognise';
import { DescribingSession } from '@/tests/lib/describingSession';
import { XDisplay } from '@/tests/lib/xDisplay';
import { shownBy } from '@/tests/parts/runProgram';
import { openBrowser, type Browser } from '../tests/e2e/lib/browser';
import { report } from './measure';

/**
 * How well the words on a screen are read, on screens kept apart: nobody has looked at what is
 * missed on them. The words of pages are told by the page itself, those of programs by AT-SPI
 * (docs/bench.md).
 */
const DOC = '/usr/share/doc';
const pages = [
  ...['bookindex', 'datatype-datetime', 'functions-string', 'app-psql', 'sql-select'],
  ...['runtime-config-logging', 'errcodes-appendix', 'catalog-pg-class', 'tutorial-join'],
].map((name) => `${DOC}/postgresql-doc-15/html/${name}.html`);
const more = [
  ...['git-log', 'git-config', 'gittutorial', 'git-bisect', 'git-rebase', 'gitglossary'],
  ...['git-status', 'gitignore', 'git-diff'],
].map((name) => `${DOC}/git-doc/${name}.html`);
const faces = ['DejaVu Sans', 'DejaVu Serif', 'Liberation Sans'];
const sizes = [13, 14, 15, 16];
const programs = [
  'galculator',
  'xfce4-taskmanager',
  'l3afpad',
  'featherpad',
  'qpdfview',
  'gucharmap',
];
const dark = { GTK_THEME: 'Adwaita:dark' };
/** Their names stand on the screen as they are; those of buttons with a picture do not. */
const written = new Set([
  ...['label', 'menu', 'check box', 'radio button', 'page tab', 'column header', 'table cell'],
  'table column header',
]);

interface Score {
  words: number;
  found: number;
  codes: number;
  codesFound: number;
  read: number;
  right: number;
}
const scores = { pages: [] as Score[], programs: [] as Score[] };

let browser: Browser;
let display: XDisplay;
beforeAll(async () => {
  browser = await openBrowser();
  display = await XDisplay.open(1280, 800);
  Object.assign(process.env, { DISPLAY: display.name });
}, 120_000);
afterAll(async () => {
  await browser.close();
  closeScreen();
  await display.close();
});

const keyOf = (word: string): string => tokensOf(word).join(' ');
/** Codes, addresses, paths, numbers with letters: what has a digit, or a sign within. */
const isCode = (word: string): boolean =>
  /\d/.test(word) || /[\p{L}\d][._/@:-]+[\p{L}\d]/u.test(word);

/** @param known all that may be read besides, in full */
function scoreOf(
  truth: readonly string[],
  read: readonly string[],
  known: readonly string[],
): Score {
  const count = new Map<string, number>();
  for (const word of read) count.set(keyOf(word), (count.get(keyOf(word)) ?? 0) + 1);
  const score = { words: 0, found: 0, codes: 0, codesFound: 0, read: 0, right: 0 };
  for (const word of truth) {
    const key = keyOf(word);
    if (!key) continue;
    const left = count.get(key) ?? 0;
    const isFound = Number(left > 0);
    count.set(key, left - isFound);
    score.words += 1;
    score.found += isFound;
    score.codes += Number(isCode(word));
    score.codesFound += Number(isCode(word)) * isFound;
  }
  const all = new Set(known.map(keyOf));
  for (const word of read) {
    if (!keyOf(word)) continue;
    score.read += 1;
    score.right += Number(all.has(keyOf(word)));
  }
  return score;
}

async function readFrom(picture: ReadablePixels): Promise<{ text: string; box: Rect }[]> {
  const { data, width, height } = picture;
  const pixels = { data: new Uint8ClampedArray(data), width, height, opaque: true };
  const paragraphs = await recognise(await enlarged(pixels), 'eng', new AbortController().signal);
  return paragraphs.flat(2);
}

const toldSchema = z.object({ seen: z.array(z.string()), all: z.array(z.string()) });
/** The words of a page that are wholly in sight, and all that are in part. */
const telling = `
  const seen = [], all = [];
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node; (node = walk.nextNode()); ) {
    const style = getComputedStyle(node.parentElement);
    if (style.visibility !== 'visible') continue;
    for (const found of node.data.matchAll(/\\S+/g)) {
      const range = document.createRange();
      range.setStart(node, found.index);
      range.setEnd(node, found.index + found[0].length);
      const boxes = [...range.getClientRects()];
      if (!boxes.some((r) => r.width > 0 && r.bottom > 0 && r.top < innerHeight && r.left < innerWidth)) continue;
      all.push(found[0]);
      const whole = boxes.length === 1 && boxes.every((r) => r.top >= 0 && r.left >= 0 && r.bottom <= innerHeight && r.right <= innerWidth);
      if (whole) seen.push(found[0]);
    }
  }
  return { seen, all };`;

test.each([...pages, ...more].map((path, i) => [path, i] as const))(
  '%s',
  async (path, i) => {
    const { driver } = browser;
    await driver.get(`file://${path}`);
    const size = sizes[i % sizes.length];
    const colours = i % 2 ? 'background:#1e2423 !important;color:#dfe5e2 !important' : '';
    await driver.executeScript(
      `const style = document.createElement('style');
       style.textContent = arguments[0];
       document.head.append(style);
       window.scrollTo(0, arguments[1]);`,
      `* { ${colours} } body { font: ${size}px "${faces[i % faces.length]}" !important }`,
      (i % 3) * 500,
    );
    const told = toldSchema.parse(await driver.executeScript(telling));
    const shot = Buffer.from(
      await driver.findElement(By.css('html')).then(() => driver.takeScreenshot()),
      'base64',
    );
    const { data, info } = await sharp(shot)
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const picture = { data: new Uint8ClampedArray(data), width: info.width, height: info.height };
    const read = (await readFrom(picture)).map((word) => word.text);
    // A word that is cut in two by signs is right in its parts, too.
    const known = told.all.flatMap((word) => [word, ...tokensOf(word)]);
    scores.pages.push(scoreOf(told.seen, read, known));
  },
  120_000,
);

test.each(programs.map((program, i) => [program, i] as const))(
  '%s',
  async (program, i) => {
    const before = { ...process.env };
    if (i % 2) Object.assign(process.env, dark);
    const session = await DescribingSession.open();
    try {
      const { picture, things } = await shownBy(display, [program]);
      const read = await readFrom(picture);
      const truth = things
        .filter(({ role, name }) => written.has(role) && name.trim() !== '')
        .flatMap((thing) => thing.name.split(/\s+/).map((text) => ({ text, thing })));
      // AT-SPI does not tell all that is written: only what it tells is held against the reading.
      const inside = read.filter((word) =>
        truth.some(({ thing }) => contains(thing, centre(word.box))),
      );
      const words = truth.map(({ text }) => text);
      scores.programs.push(
        scoreOf(
          words,
          inside.map((word) => word.text),
          words,
        ),
      );
    } finally {
      closeAccessibilityBus();
      closeSessionBus();
      await session.close();
      for (const name of Object.keys(dark)) {
        if (before[name] === undefined) Reflect.deleteProperty(process.env, name);
      }
    }
  },
  150_000,
);

test('all of them together', () => {
  const all = [...scores.pages, ...scores.programs];
  expect(all.length).toBe(pages.length + more.length + programs.length);
  const share = (of: readonly Score[], a: keyof Score, b: keyof Score) => {
    const sum = (key: keyof Score) => of.reduce((total, score) => total + score[key], 0);
    return `${(sum(a) / sum(b)).toFixed(3)} (${sum(a)} of ${sum(b)})`;
  };
  report(
    `Words read on ${all.length} screens kept apart`,
    share(all, 'found', 'words'),
    'must 0.93',
  );
  report('of them codes, addresses, numbers', share(all, 'codesFound', 'codes'), 'must 0.85');
  report('of what was read, right', share(all, 'right', 'read'), 'must 0.93');
  report('pages alone: words', share(scores.pages, 'found', 'words'));
  report('programs alone: words', share(scores.programs, 'found', 'words'));
});

test('what a screen costs', async () => {
  const { driver } = browser;
  await driver.get(`file://${pages[4]}`);
  const shot = Buffer.from(await driver.takeScreenshot(), 'base64');
  const { data, info } = await sharp(shot)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const pixels = {
    data: new Uint8ClampedArray(data),
    width: info.width,
    height: info.height,
    opaque: true,
  };
  const { picture } = await enlarged(pixels);
  const said = execFileSync(
    'bash',
    [
      '-c',
      'OMP_THREAD_LIMIT=1; export OMP_THREAD_LIMIT; exec /usr/bin/time -f "%U %M" tesseract stdin /dev/null -l eng --psm 3 tsv 2>&1',
    ],
    { input: picture, encoding: 'utf8' },
  );
  const [, seconds = '', kilobytes = ''] = /([\d.]+) (\d+)\s*$/.exec(said) ?? [];
  report(
    'A screen of 1280 × 800: computing, memory',
    `${seconds} s, ${Math.round(Number(kilobytes) / 1000)} MB`,
  );
  expect(Number(seconds)).toBeGreaterThan(0);
}, 60_000);
