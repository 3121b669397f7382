import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { App, getShot, listShots, plainPng, sendShot } from './lib/app';
import { openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;
const day = (n: number, minute: number) => ({
  provenance: JSON.stringify({
    source: 'desk',
    takenAt: new Date(Date.UTC(2026, 5, n, 9, minute)).toISOString(),
  }),
});

beforeAll(async () => {
  browser = await openBrowser();
  app = new App(browser.driver);
  const png = await plainPng(120, 80, '#CC79A7');
  for (let i = 0; i < 130; i += 1) await sendShot(png, `Bed ${i}`, day(1 + (i % 20), i % 60));
}, 180_000);
afterAll(() => browser.close());

const cards = () => browser.driver.findElements(By.css('[data-shot]'));
const openShelf = async () => {
  await app.go('/shelf');
  await app.until('cards', async () => (await cards()).length > 0);
};
const choose = async (title: string) => app.click(title);

test('days newest first; only what is in sight is in the page; all is reached by scrolling', async () => {
  await openShelf();
  const headings = await browser.driver.findElements(By.css('main h2'));
  expect(headings.length).toBeGreaterThan(0);
  expect((await cards()).length).toBeLessThan(80);
  const seen = new Set<string>();
  const { total } = await listShots();
  await app.until(
    'everything',
    async () => {
      const ids = await browser.driver.executeScript<string[]>(
        `const ids = [...document.querySelectorAll('[data-shot]')].map((card) => card.dataset.shot);
         document.querySelector('main > div.overflow-auto').scrollBy(0, 420);
         return ids;`,
      );
      for (const id of ids) seen.add(id);
      return seen.size >= total;
    },
    60_000,
  );
}, 120_000);

test('rename, bin, restore, delete for good', async () => {
  const id = await sendShot(await plainPng(50, 50, '#009E73'), 'Compost heap');
  await openShelf();
  await choose('Compost heap');
  const aside = await browser.driver.findElement(By.css('aside[aria-label="About this shot"]'));
  const name = await aside.findElement(By.css('[aria-label="Name of the shot"]'));
  await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'Compost, turned', Key.ENTER);
  await app.until('renamed', async () => (await getShot(id)).title === 'Compost, turned');
  await app.click('Put in the bin');
  await app.sees('is in the bin');
  expect((await getShot(id)).binnedAt).not.toBeNull();
  await app.click('Bin');
  await choose('Compost, turned');
  await (
    await browser.driver.findElement(By.xpath("//aside//button[contains(., 'Restore')]"))
  ).click();
  await app.until('restored', async () => (await getShot(id)).binnedAt === null);
  await app.click('Everything');
  await choose('Compost, turned');
  await app.click('Put in the bin');
  await app.until('binned', async () => (await getShot(id)).binnedAt !== null);
  await app.click('Bin');
  await choose('Compost, turned');
  await app.click('Delete for good');
  await (
    await browser.driver.findElement(
      By.xpath("//div[@role='dialog']//button[contains(., 'Delete for good')]"),
    )
  ).click();
  await app.until(
    'erased',
    async () => !(await listShots('&bin=1')).shots.some((s) => s.id === id),
  );
}, 90_000);

test('by keyboard: arrow keys choose, Enter opens', async () => {
  await openShelf();
  const [first] = await cards();
  await first?.sendKeys(Key.ARROW_RIGHT);
  await app.until('the second has the focus', async () => {
    const focused = await browser.driver.switchTo().activeElement();
    return (
      (await focused.getAttribute('data-shot')) ===
      (await (await cards())[1]?.getAttribute('data-shot'))
    );
  });
  await app.keys(Key.ENTER);
  await app.stage();
}, 60_000);
