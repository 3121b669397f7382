import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { Key } from 'selenium-webdriver';
import { createCanvas } from '@napi-rs/canvas';
import { paintDesk } from '@/core/desk/build';
import { deskDisplays } from '@/core/desk/model';
import type { Finish } from '@/core/finish/finish';
import { partOrder, parts, type Surround } from '@/core/finish/surround/surround';
import { markNames, type Mark } from '@/core/marks/registry';
import { everyMark } from '@/tests/lib/marks';
import { testShaper } from '@/tests/lib/shaper';
import { App, freshDesk, getPixels, sendShot } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
let frame: Buffer;

const bounds = deskDisplays[0].bounds;

/** The practice desk's left display, painted on the server's canvas. */
async function deskPixels(): Promise<Buffer> {
  const surface = createCanvas(bounds.width, bounds.height).getContext('2d');
  paintDesk(surface, freshDesk(), await testShaper(), bounds);
  return Buffer.from(surface.getImageData(0, 0, bounds.width, bounds.height).data);
}

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  await browser.driver.sendDevToolsCommand('Browser.grantPermissions', {
    permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    origin: appUrl(),
  });
}, 120_000);

afterAll(() => browser.close());

test('a frame of the desk is, to the byte, what the same code paints elsewhere', async () => {
  await app.take();
  await app.keys('1', Key.ENTER);
  const id = await app.marked();
  await app.stored();
  const taken = await getPixels(id, 'frame');
  expect([taken.width, taken.height]).toEqual([bounds.width, bounds.height]);
  expect(Buffer.compare(taken.data, await deskPixels())).toBe(0);
  frame = Buffer.from(await (await fetch(`${appUrl()}/api/shots/${id}/frame`)).arrayBuffer());
}, 60_000);

const adjust = { brightness: 110, contrast: 130, saturation: 70, inverted: 100, sharpened: 90 };

const background = { colours: ['#DCE9E2', '#446655'], run: 'slant', room: 30 } as const;
const caption = { ...parts.caption.first, text: 'Reed bed · {n}', number: 4 };
/** Each part that can be around a picture, and all of them together. */
const surrounds: (readonly [string, Surround])[] = [
  ...partOrder.map((name) => [`${name} around it`, { [name]: parts[name].first }] as const),
  ['round corners', { border: { ...parts.border.first, corners: 30 } }],
  ['words all over', { watermark: { ...parts.watermark.first, tiled: true, size: 14 } }],
  [
    'everything around it',
    {
      fold: parts.fold.first,
      ragged: parts.ragged.first,
      border: { ...parts.border.first, corners: 20 },
      tilt: { across: 20, up: -12 },
      shadow: parts.shadow.first,
      background: { ...background, colours: [...background.colours] },
      caption,
      watermark: parts.watermark.first,
    },
  ],
];

const room = { top: 30, right: 10, bottom: 0, left: 25, colour: '#DCE9E2' };
const roomOf = (name: string) => (name.startsWith('with room') ? { room } : {});

/** The marks of one kind together, in both orders, so that none lies hidden below another. */
const cases: (readonly [string, readonly Mark[], Finish])[] = [
  ...markNames.flatMap((kind) => {
    const marks = everyMark.filter((mark) => mark.kind === kind);
    return [
      [kind, marks, {}] as const,
      ...(marks.length > 1 ? [[`${kind}, upside down`, [...marks].reverse(), {}] as const] : []),
    ];
  }),
  ['all together', everyMark, {}] as const,
  ['all together, picture adjusted', everyMark, { adjust: { on: 'picture', ...adjust } }] as const,
  ['all together, all adjusted', everyMark, { adjust: { on: 'all', ...adjust } }] as const,
  ['with room beside it', everyMark, {}] as const,
  ...surrounds.map(([name, surround]) => [name, everyMark.slice(0, 3), { surround }] as const),
];

test.each(cases)(
  '%s: the browser’s worker and the server paint the same bytes',
  async (name, marks, finish) => {
    const crop = { x: 20, y: 10, width: 620, height: 400 };
    const id = await sendShot(frame, name, {
      document: JSON.stringify({ version: 4, view: { crop, ...roomOf(name) }, marks, finish }),
    });
    await app.openShot(id);
    await app.chord(Key.CONTROL, 'c');
    await app.until('copied', () => app.has(`[data-notice="copied ${id}"]`));
    const copied = await app.pasted();
    const painted = await getPixels(id, 'picture');
    const size = [painted.width, painted.height];
    expect([copied.width, copied.height]).toEqual(size);
    if (!finish.surround && !name.startsWith('with room')) expect(size).toEqual([620, 400]);
    expect(Buffer.compare(copied.data, painted.data)).toBe(0);
  },
  60_000,
);
