import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import postgres from 'postgres';
import { By, Key, until } from 'selenium-webdriver';
import sharp from 'sharp';
import { createCanvas } from '@napi-rs/canvas';
import { paintDesk } from '@/core/desk/build';
import { createDesk, deskDisplays } from '@/core/desk/model';
import { testShaper } from '@/tests/lib/shaper';
import { everyMark } from '@/tests/lib/marks';
import { App, sendShot, WAIT } from '../tests/e2e/lib/app';
import { appUrl, openBrowser, type Browser } from '../tests/e2e/lib/browser';
import { median, ms, report, time } from './measure';

let browser: Browser;
let app: App;
const FRAME = { width: 3840, height: 2160 };

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
}, 120_000);
afterAll(() => browser.close());

/**
 * A 3840×2160 canvas in place of a shared screen. It changes a few times only: copying 33 MB of
 * canvas many times a second is not what sharing a screen costs a page.
 */
const SHARE = `
  const canvas = document.createElement('canvas');
  canvas.width = 3840; canvas.height = 2160;
  const surface = canvas.getContext('2d');
  for (let i = 0; i < 400; i += 1) {
    surface.fillStyle = 'hsl(' + i * 7 + ' 40% ' + (40 + (i % 40)) + '%)';
    surface.fillRect((i * 97) % 3840, (i * 61) % 2160, 300, 120);
    surface.fillStyle = '#111';
    surface.fillText('FH-' + (2000 + i) + ' Marsh marigold', (i * 97) % 3840, (i * 61) % 2160 + 40);
  }

  let ticks = 0;
  const timer = setInterval(() => { surface.fillRect(0, 0, 1, 1); if (++ticks > 20) clearInterval(timer); }, 50);
  navigator.mediaDevices.getDisplayMedia = () => Promise.resolve(canvas.captureStream(15));`;

test('Enter to an editable picture, 3840×2160', async () => {
  const figures: number[] = [];
  const answers: number[] = [];
  await app.take();
  await app.click('Region');
  await app.click('0 s');
  await browser.driver.executeScript(SHARE);
  await app.click('Shared screen');
  await app.click('Share a screen');
  await app.sees('3840');
  await browser.driver.sleep(2000);
  for (let i = 0; i < 11; i += 1) {
    await app.click('Take a region');
    await browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);
    await app.keys(Key.ARROW_RIGHT);
    await browser.driver.sleep(800);
    await browser.driver.executeScript(`
      window.took = null;
      window.answered = null;
      document.querySelectorAll('[data-notice] [aria-label="Close"]').forEach((b) => b.click());
      window.addEventListener('keydown', () => {
        const asked = performance.now();
        const look = () => {
          if (document.querySelector('[data-testid="stage"] canvas')) requestAnimationFrame(() => setTimeout(() => { window.took = performance.now() - asked; }));
          else requestAnimationFrame(look);
        };
        look();
        const answer = () => {
          if (document.querySelector('[data-notice] img')) window.answered = performance.now() - asked;
          else requestAnimationFrame(answer);
        };
        answer();
      }, { capture: true, once: true });`);
    await app.keys(Key.ENTER);
    await app.until(
      'editable',
      async () => (await browser.driver.executeScript('return window.took')) !== null,
    );
    figures.push(await browser.driver.executeScript<number>('return window.took'));
    await app.until(
      'answered',
      async () => (await browser.driver.executeScript('return window.answered')) !== null,
    );
    answers.push(await browser.driver.executeScript<number>('return window.answered'));
    await app.stored();
    await app.click('Take');
  }
  report(
    'Enter to editable picture, 3840×2160 (median)',
    ms(median(figures)),
    'must be ≤ 250 ms on a quiet machine',
  );
  report(
    'Enter to the answer with its thumbnail (median)',
    ms(median(answers)),
    'the need says 300 ms',
  );
  expect(figures).toHaveLength(11);
}, 300_000);

/** A screen full of windows and words, as large as that. */
async function busyFrame(): Promise<Buffer> {
  const canvas = createCanvas(FRAME.width, FRAME.height);
  const surface = canvas.getContext('2d');
  const { bounds } = deskDisplays[0];
  surface.scale(FRAME.width / bounds.width, FRAME.height / bounds.height);
  paintDesk(surface, createDesk(1, 0), await testShaper(), bounds);
  return canvas.toBuffer('image/png');
}

test.each([
  ['with every kind of mark', everyMark],
  ['without marks', []],
] as const)(
  'the whole keep %s, reading and painting included',
  async (what, marks) => {
    const folder = join(process.env.REZZIK_ROOTS ?? '', 'bench');
    mkdirSync(folder, { recursive: true });
    const made = await fetch(`${appUrl()}/api/folders`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: what, path: folder, pattern: '{title}-{n}' }),
    });
    const { id: folderId } = (await made.json()) as { id: string };
    const id = await sendShot(await busyFrame(), 'keep', {
      document: JSON.stringify({
        version: 4,
        view: { crop: { x: 0, y: 0, ...FRAME } },
        marks,
      }),
    });
    const shown = await fetch(`${appUrl()}/api/shots/${id}/picture`);
    const raw = await sharp(await shown.arrayBuffer())
      .raw()
      .toBuffer();
    /** Nothing but encoding, hashing and writing the same pixels. */
    const bare = async (path: string) => {
      const bytes = await sharp(raw, { raw: { ...FRAME, channels: 3 } })
        .png({ compressionLevel: 6 })
        .toBuffer();
      createHash('sha256').update(bytes).digest('hex');
      await writeFile(path, bytes, { flush: true });
    };
    const figures: number[] = [];
    const ratios: number[] = [];
    for (let i = 0; i < 7; i += 1) {
      const alone = await time(() => bare(join(folder, `bare-${i}.png`)));
      // A rename keeps the revision; a duplicate has a picture that is not painted yet.
      const twin = await fetch(`${appUrl()}/api/shots/${id}/duplicates`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: '{}',
      });
      const { id: fresh } = (await twin.json()) as { id: string };
      figures.push(
        await time(() =>
          fetch(`${appUrl()}/api/shots/${fresh}/copies`, {
            method: 'POST',
            headers: { 'Content-Type': 'application/json' },
            body: JSON.stringify({ folderId }),
          }).then((a) => a.json()),
        ),
      );
      ratios.push((figures.at(-1) ?? NaN) / alone);
    }
    report('Whole keep of a 3840×2160 shot over HTTP (median)', ms(median(figures)), what);
    report(
      '… against bare encoding, hashing and writing',
      `${median(ratios).toFixed(2)}×`,
      'must be ≤ 1.6×',
    );
    expect(figures).toHaveLength(7);
  },
  120_000,
);

test('a page of the Shelf with 5 000 shots', async () => {
  const sql = postgres(process.env.DATABASE_URL ?? '', { max: 1, onnotice: () => undefined });
  const [first] = await sql<{ id: string }[]>`select id from shots limit 1`;
  await sql`insert into shots (id, frame_id, title, document, provenance, taken_at)
    select gen_random_uuid(), s.frame_id, 'Shot ' || i, s.document, s.provenance, now() - i * interval '7 minutes'
    from shots s, generate_series(1, 5000) i where s.id = ${first?.id ?? ''}`;
  await sql`analyze shots`;
  await sql.end();
  const get = (path: string) => time(() => fetch(appUrl() + path).then((a) => a.text()));
  const page: number[] = [];
  const reference: number[] = [];
  for (let i = 0; i < 25; i += 1) {
    reference.push(await get('/api/health'));
    page.push(await get('/api/shots?limit=100'));
  }
  report(
    'Shelf page of 100 with 5 000 shots, over HTTP (median)',
    ms(median(page)),
    'must be ≤ 50 ms on the server',
  );
  report(
    '… against the smallest answer (health) in the same run',
    `${(median(page) / median(reference)).toFixed(1)}×`,
  );
  const start = Date.now();
  await app.go('/shelf');
  await app.until('cards', () => app.has('[data-shot]'), 30_000);
  report('Shelf opened with 5 000 shots, address to cards', ms(Date.now() - start));
  expect(page).toHaveLength(25);
}, 120_000);
