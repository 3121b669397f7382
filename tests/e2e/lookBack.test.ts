import { beforeEach, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { createDesk, deskDisplays } from '@/core/desk/model';
import { getPixels, getShot, listShots, setWay } from './lib/app';
import { cutOut } from '../lib/pictures';
import { addRoutine } from './lib/hand';
import { appUrl } from './lib/browser';
import { stilled } from './lib/stilled';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();

const [left] = deskDisplays;
const register = createDesk(2026, 0).windows.find((w) => w.name === 'register')?.bounds ?? {
  ...{ x: 0, y: 0, width: 0, height: 0 },
};
/** A part of the register that no other window covers, on the left display. */
const OPEN = {
  ...{ left: register.x - left.bounds.x + 4, top: register.y - left.bounds.y + 34 },
  ...{ width: 580, height: 400 },
};

/** What is said of the moment in sight: “2 of 3 · 1.4 s ago · …”. */
const said = async (): Promise<string> =>
  (
    await browser.driver.findElements(By.css('output[aria-label="The moment in sight"]'))
  )[0]?.getText() ?? '';
const says = (words: string): Promise<void> =>
  app.until(`it says “${words}”`, async () => (await said()).startsWith(words));
/** How many moments there are: what the pointer lights up is one of its own. */
const count = async (): Promise<number> => Number(/of (\d+)/.exec(await said())?.[1] ?? 0);

/** Turns the wheel over the register as a hand does. */
async function wheel(by: number): Promise<void> {
  const desk = await (await app.desk()).getRect();
  await browser.driver.sendDevToolsCommand('Input.dispatchMouseEvent', {
    ...{ type: 'mouseWheel', deltaX: 0, deltaY: by },
    ...{ x: Math.round(desk.x + desk.width * 0.2), y: Math.round(desk.y + desk.height * 0.3) },
  });
}

const isHeld = (): Promise<boolean> => app.has('[role="group"][aria-label="Held"]');

/** Looks that differ are at least so far apart, ms: two that are nearer may be one moment. */
const APART = 500;
const pause = () => browser.driver.sleep(APART);

/** Scrolls once and again while that is held: three moments at least. */
async function threeMoments(): Promise<void> {
  await pause();
  await wheel(200);
  await pause();
  await wheel(200);
  await pause();
}

/** The film is open, its newest moment in sight. @returns how many there are */
async function atTheEnd(): Promise<number> {
  await app.until('three moments', async () => (await count()) >= 3);
  const all = await count();
  await says(`${all} of ${all} · now`);
  return all;
}

beforeEach(async () => {
  await setWay({ source: 'desk', display: 'Left', kind: 'back', then: [{ do: 'mark' }] });
  await app.go('/take');
  await app.desk();
  await app.click('Hold the last 10 s');
  await app.until('it is held', isHeld);
});

/** docs/actions.md: a moment just gone in two actions, and one for each moment back. */
test('Shift+B, Enter: what was there before it was scrolled away is the shot, to the pixel', async () => {
  await app.keys('1', Key.ENTER);
  const before = await app.marked();
  await app.stored();
  // Held meanwhile, and seen to be so: in Mark as well.
  expect(await isHeld()).toBe(true);
  await app.chord(Key.SHIFT, 'n');
  await app.desk();
  await threeMoments();
  const pressed = Date.now();
  await app.chord(Key.SHIFT, 'b');
  await atTheEnd();
  await app.keys(Key.HOME);
  await says('1 of');
  await app.keys(Key.ENTER);
  const id = await app.marked();
  await app.stored();
  const shot = await getShot(id);
  expect(shot.title).toMatch(/^Screen \d+, ./);
  expect(shot.provenance).toMatchObject({ source: 'desk', display: 'Left' });
  expect(Date.parse(shot.provenance.takenAt)).toBeLessThan(pressed - 2 * APART);
  const [was, is] = [await getPixels(before, 'frame'), await getPixels(id, 'frame')];
  expect((await cutOut(is, OPEN)).equals(await cutOut(was, OPEN))).toBe(true);
}, 60_000);

test('arrows step and stay at the ends, Space adds, Enter takes all of them', async () => {
  await threeMoments();
  await app.keys(Key.ENTER);
  const all = await atTheEnd();
  await app.keys(Key.ARROW_RIGHT);
  await says(`${all} of`);
  await app.keys(Key.SPACE, ...Array.from({ length: all + 1 }, () => Key.ARROW_LEFT), Key.SPACE);
  await says('1 of');
  expect(await said()).toContain('chosen');
  const { total } = await listShots();
  await app.click('Take 2 moments');
  const first = await app.marked();
  await app.until('both', async () => (await listShots()).total === total + 2);
  const { shots } = await listShots();
  const [other] = shots.filter(({ id }) => id !== first);
  const cut = async (id: string) => cutOut(await getPixels(id, 'frame'), OPEN);
  expect((await cut(first)).equals(await cut(other?.id ?? ''))).toBe(false);
}, 60_000);

test('a region is chosen on a moment; Esc goes back to the film, then to Take, and it is still held', async () => {
  await threeMoments();
  await app.keys(Key.ENTER);
  const all = await atTheEnd();
  await app.keys(Key.ARROW_LEFT, '3');
  await stilled(app, left.bounds);
  await app.keys(Key.ESCAPE);
  await says(`${all - 1} of ${all}`);
  await app.keys('3');
  const { at } = await stilled(app, left.bounds);
  await browser.driver.actions().move(at(200, 200)).press().move(at(500, 400)).release().perform();
  await app.keys(Key.ENTER);
  const id = await app.marked();
  await app.stored();
  const { crop } = (await getShot(id)).document.view;
  expect(Math.abs(crop.width - 300)).toBeLessThan(6);
  await app.chord(Key.SHIFT, 'b');
  await app.until('the film', async () => (await count()) > 0);
  await app.keys(Key.ESCAPE);
  // Back to where one was.
  await app.stage();
  expect(await isHeld()).toBe(true);
}, 60_000);

test('what was held is gone when it is switched off, and when another source is chosen', async () => {
  await threeMoments();
  await app.click('Hold no longer');
  await app.until('nothing is held', async () => !(await isHeld()));
  await app.chord(Key.SHIFT, 'b');
  await app.sees('Nothing is held of this yet');
  await app.click('Hold the last 10 s');
  await app.until('it is held again', isHeld);
  await app.keys(Key.ENTER);
  await app.until('the film is open', async () => (await count()) > 0);
  // Fewer than there were before.
  expect(await count()).toBeLessThan(3);
  await app.keys(Key.ESCAPE);
  await app.click('Camera');
  await app.until('nothing is held', async () => !(await isHeld()));
  await app.sees('Of a camera nothing is held');
  await app.click('Practice desk');
  expect(await isHeld()).toBe(false);
}, 60_000);

test('a routine looks back by its key; a moment is gone to by a click, and leaving it takes nothing', async () => {
  const routine = await addRoutine('f2', { source: 'desk', display: 'Left', kind: 'back' });
  await app.go('/take');
  await app.desk();
  await app.click('Hold the last 10 s');
  await threeMoments();
  await app.keys(Key.F2);
  await atTheEnd();
  const strip = await browser.driver.findElements(By.css('ol[aria-label] li button'));
  await strip[0]?.click();
  await says('1 of');
  const { total } = await listShots();
  await app.click('Leave it');
  await app.desk();
  expect((await listShots()).total).toBe(total);
  await fetch(`${appUrl()}/api/routines/${routine}`, { method: 'DELETE' });
}, 60_000);

test('when the screen is locked, what a page holds is gone, and that is said', async () => {
  // In place of a desktop that tells the server of it.
  const source = 'window.EventSource = class { constructor() { window.told = this; } close() {} };';
  await browser.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', { source });
  await app.go('/take');
  await app.desk();
  await app.click('Hold the last 10 s');
  await app.until('it is held', isHeld);
  const told = { routine: '', lines: ['The screen was locked.'], locked: true };
  await browser.driver.executeScript(
    'window.told.onmessage({ data: arguments[0] });',
    JSON.stringify(told),
  );
  await app.sees('Nothing is held any more');
  await app.sees('The screen was locked.');
  expect(await isHeld()).toBe(false);
}, 60_000);
