import { afterAll, expect, test } from '@jest/globals';
import postgres from 'postgres';
import { Key } from 'selenium-webdriver';
import { firstWay } from '@/core/contracts/way';
import { getShot, plainPng, sendShot } from './lib/app';
import { newFolder, openKeep } from './lib/keeping';
import { app, browser, inOneBrowser } from './lib/suite';

/** Much of everything: many opened shots, many folders and routines, long and foreign names. */

const sql = postgres(process.env.DATABASE_URL ?? '', { max: 1, onnotice: () => undefined });

inOneBrowser();
afterAll(() => sql.end());

/** Counts, from the next page on, what must be given back: addresses of blobs, bitmaps, workers. */
const counting = `
  window.alive = { urls: 0, bitmaps: 0, workers: 0 };
  const { createObjectURL, revokeObjectURL } = URL;
  URL.createObjectURL = (blob) => { alive.urls += 1; return createObjectURL.call(URL, blob); };
  URL.revokeObjectURL = (url) => { alive.urls -= 1; revokeObjectURL.call(URL, url); };
  const { createImageBitmap } = window;
  window.createImageBitmap = (...args) => createImageBitmap(...args).then((bitmap) => { alive.bitmaps += 1; return bitmap; });
  const { close } = ImageBitmap.prototype;
  ImageBitmap.prototype.close = function () { if (this.width > 0) alive.bitmaps -= 1; close.call(this); };
  window.Worker = class extends Worker {
    constructor(...args) { super(...args); alive.workers += 1; }
    terminate() { alive.workers -= 1; super.terminate(); }
  };`;

interface Alive {
  urls: number;
  bitmaps: number;
  workers: number;
}

test('shots opened and left again, over and over, hold on to nothing', async () => {
  const ids = await Promise.all(
    Array.from({ length: 10 }, async (_, i) =>
      sendShot(await plainPng(300, 200, '#FFFFFF'), `Opened ${i}`),
    ),
  );
  await browser.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: counting,
  });
  await app.go(`/shots/${ids[0] ?? ''}`);
  await app.stage();
  const round = (times: number) =>
    browser.driver.executeAsyncScript<Alive>(
      `const [ids, times, done] = arguments;
       const go = (path) => { history.pushState(null, '', path); window.dispatchEvent(new PopStateEvent('popstate')); };
       const seen = (css) => new Promise((resolve) => { const look = () => document.querySelector(css) ? resolve() : setTimeout(look, 5); look(); });
       (async () => {
         for (let i = 0; i < times; i += 1) {
           const id = ids[i % ids.length];
           go('/shots/' + id);
           await seen('[data-of="' + id + '"] canvas');
           if (i % 10 === 9) { go('/shelf'); await seen('main'); }
         }
         done({ ...alive });
       })();`,
      ids,
      times,
    );
  const few = await round(10);
  // Not in one go: a busy machine takes its time.
  let many = few;
  for (let i = 0; i < 7; i += 1) many = await round(10);
  // A few newest ones stay in memory, so that going back is at once.
  expect(many.bitmaps - few.bitmaps).toBeLessThanOrEqual(2);
  expect(many.urls - few.urls).toBeLessThanOrEqual(2);
  expect(many.workers).toBe(few.workers);
}, 120_000);

test('a thousand folders and a thousand routines: found, used, and the views stay quick to use', async () => {
  const folder = await newFolder('First of many', { isDefault: true });
  await sql`insert into folders (id, name, path, format, quality, pattern)
    select gen_random_uuid(), 'Shed ' || n, ${folder.path}, 'png', 90, '{title}' from generate_series(1, 999) n`;
  await sql`insert into routines (id, name, key, way, position)
    select gen_random_uuid(), 'Round ' || n, null, ${sql.json(firstWay)}, n from generate_series(1, 1000) n`;
  await app.take();
  await app.choose(await app.named('Another place'), 'Keep in Shed 777');
  await app.click('Full screen');
  await app.keys(Key.ENTER);
  await app.sees('Kept:');
  await app.go('/take');
  await app.desk();
  await (await app.sees('Round 900')).click();
  await app.marked();
  await app.stored();
  await app.go('/setup/folders');
  await app.sees('Shed 999');
  await app.go('/setup/routines');
  await app.sees('Round 1000');
  const among = await sendShot(await plainPng(60, 40, '#FFFFFF'), 'Among many');
  await app.go(`/shots/${among}/keep`);
  await (await app.sees('Shed 500')).click();
  await app.keys(Key.chord(Key.CONTROL, Key.ENTER));
  await app.sees('Kept in Shed 500');
  await sql`delete from folders where name like 'Shed %'`;
  await sql`delete from routines`;
}, 120_000);

const names = [
  ['300 letters', 'w'.repeat(300)],
  ['other scripts, and signs that mean something', 'ゆきの朝 صباح <b>&amp; "it" \\ {title} %41'],
] as const;

const rename = async (words: string) =>
  (await app.named('Name of the shot')).sendKeys(Key.chord(Key.CONTROL, 'a'), words, Key.ENTER);

test.each(names)(
  'a name of %s is kept as it was given, and tears no view',
  async (_, name) => {
    const id = await openKeep(app, 'Named oddly');
    await rename(name);
    await app.until('given', async () => (await getShot(id)).title === name);
    await app.click('First of many');
    await app.click('Keep in 1 place');
    await app.sees('Kept in First of many');
    for (const view of [`/shots/${id}`, `/shots/${id}/keep`, '/shelf', '/take']) {
      await app.go(view);
      await app.until(view, () => app.has('main'));
      await app.atRest();
      const over = await browser.driver.executeScript<number>(
        'return document.documentElement.scrollWidth - innerWidth',
      );
      expect([view, over]).toEqual([view, 0]);
    }
  },
  60_000,
);

test('a name of spaces alone is none: the one before stays', async () => {
  const id = await openKeep(app, 'Stays named');
  await rename('     ');
  await rename('Named after all');
  await app.until('given', async () => (await getShot(id)).title === 'Named after all');
  await rename('   ');
  await app.go(`/shots/${id}/keep`);
  const name = await app.named('Name of the shot');
  expect(await name.getAttribute('value')).toBe('Named after all');
}, 60_000);
