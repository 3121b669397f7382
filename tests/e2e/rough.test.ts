import { chmodSync, existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { firstWay } from '@/core/contracts/way';
import { everyMark } from '@/tests/lib/marks';
import { getShot, listShots, plainPng, sendShot, setWay } from './lib/app';
import { allowClipboard, newFolder, openKeep } from './lib/keeping';
import { app, browser, inOneBrowser, marking } from './lib/suite';

/** What a person in a hurry does: too early, too late, in the middle of something else. */

inOneBrowser();

const run = <T>(script: string, ...args: unknown[]) =>
  browser.driver.executeScript<T>(script, ...args);

const onEveryPage = async (source: string): Promise<{ identifier: string }> =>
  (await browser.driver.sendAndGetDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source,
  })) as unknown as { identifier: string };

/** Goes to another view without loading the page anew, as a click on a link does. */
async function walk(path: string): Promise<void> {
  await run(
    `history.pushState(null, '', arguments[0]); window.dispatchEvent(new PopStateEvent('popstate'));`,
    path,
  );
}

async function resize(width: number, height: number): Promise<void> {
  await browser.driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile: false,
  });
}

/** Every letter, digit and sign that is a key somewhere, and those with a name. */
const allKeys = [
  ...'abcdefghijklmnopqrstuvwxyz0123456789[]+-.?',
  Key.DELETE,
  Key.PAGE_UP,
  Key.PAGE_DOWN,
  Key.ARROW_LEFT,
  Key.ARROW_DOWN,
  Key.HOME,
  Key.F2,
];

describe('an answer', () => {
  /** Controls that something else lies upon, by their names. */
  const covered = `
    const wanted = 'button, a[href], input:not([type=file]), select, textarea, [role="slider"]';
    const under = [];
    for (const el of document.querySelectorAll(wanted)) {
      if (!el.checkVisibility() || el.closest('[data-notice]')) continue;
      // What a list has scrolled away is not covered.
      el.scrollIntoView({ block: 'nearest', inline: 'nearest' });
      const { left, top, width, height } = el.getBoundingClientRect();
      const [x, y] = [left + width / 2, top + height / 2];
      const hit = document.elementFromPoint(x, y);
      if (hit?.closest('[data-notice], footer') && !hit.contains(el) && !el.contains(hit))
        under.push(el.getAttribute('aria-label') || el.textContent);
    }
    const foot = document.querySelector('footer').getBoundingClientRect();
    if (Math.round(foot.bottom) > innerHeight) under.push('the foot is cut');
    return under;`;

  test.each([
    [1024, 700],
    [1280, 800],
    [1920, 1080],
  ])(
    'covers no control in any view at %i × %i',
    async (width, height) => {
      const id = await sendShot(await plainPng(600, 400, '#FFFFFF'), 'Under answers');
      await resize(width, height);
      await app.take();
      // A setting that the server does not take is said, and the answer stays.
      await run(`const real = window.fetch;
        window.fetch = (path, init) => init?.method === 'PATCH' && String(path).includes('settings')
          ? Promise.resolve(new Response('{}', { status: 500 })) : real(path, init);`);
      await app.click('Window');
      await app.until('the answer', () => app.has('[data-notice]'));
      for (const view of [
        '/take',
        `/shots/${id}`,
        `/shots/${id}/keep`,
        '/shelf',
        '/setup/taking',
      ]) {
        await walk(view);
        await app.until(view, () => run<boolean>('return !!document.querySelector("main")'));
        await app.atRest();
        expect(await app.has('[data-notice]')).toBe(true);
        expect([view, await run(covered)]).toEqual([view, []]);
      }
      await resize(1280, 800);
    },
    90_000,
  );
});

describe('every key, in the middle of something', () => {
  test('of a countdown: one take comes, as it was asked for', async () => {
    await app.take();
    await setWay({ delay: 3 });
    await app.go('/take');
    await app.desk();
    const before = (await listShots()).shots.length;
    await app.click('Full screen');
    await app.keys(Key.ENTER);
    await app.named('Stop this take');
    await app.keys(...allKeys.filter((key) => key !== '?'));
    await app.marked();
    await app.stored();
    expect((await listShots()).shots.length).toBe(before + 1);
    await setWay(firstWay);
  }, 60_000);

  test('of a drag: one box is drawn, and the document is whole', async () => {
    const id = await marking.open();
    await app.keys('b');
    const stage = await marking.stage();
    const { width, height } = await stage.getRect();
    const place = async (x: number, y: number) => {
      const at = await marking.at(x, y);
      return { origin: stage, x: Math.round(at.x - width / 2), y: Math.round(at.y - height / 2) };
    };
    await browser.driver
      .actions({ async: true })
      .move(await place(100, 100))
      .press()
      .perform();
    await browser.driver
      .actions({ async: true })
      .move(await place(180, 150))
      .perform();
    for (const key of allKeys)
      await run(
        `const press = (type) => document.activeElement.dispatchEvent(new KeyboardEvent(type, { key: arguments[0], bubbles: true, cancelable: true }));
       press('keydown'); press('keyup');`,
        key,
      );
    await browser.driver
      .actions({ async: true })
      .move(await place(260, 220))
      .release()
      .perform();
    await app.keys(Key.ESCAPE, Key.ESCAPE);
    expect((await marking.marksOf(id)).map(({ kind }) => kind)).toEqual(['box']);
  }, 60_000);

  test('of a question: nothing behind it hears them', async () => {
    const id = await marking.open([...everyMark].slice(0, 3));
    const before = await marking.marksOf(id);
    await app.keys('?');
    await app.named('Find a key');
    await app.keys(...allKeys);
    // A button that is switched off under the pointer leaves the focus nowhere.
    await run('document.activeElement.blur()');
    await app.keys(...allKeys);
    await app.keys(Key.ESCAPE);
    await app.until('closed', async () => !(await app.has('[role="dialog"]')));
    expect(await marking.marksOf(id)).toEqual(before);
    expect(await browser.driver.getCurrentUrl()).toContain(id);
  }, 60_000);
});

describe('what is under way when the view is left', () => {
  test('a camera allowed too late is let go at once', async () => {
    await app.take();
    await run(`navigator.mediaDevices.getUserMedia = () => new Promise((resolve) => {
      window.allowNow = () => { const c = document.createElement('canvas'); const s = c.captureStream(); window.lateTrack = s.getVideoTracks()[0]; resolve(s); };
    });`);
    await app.click('Camera');
    await app.click('Open the camera');
    await app.until('asked', () => run<boolean>('return typeof allowNow === "function"'));
    await walk('/shelf');
    await app.named('Bin');
    await run('allowNow()');
    await app.until('let go', () => run<boolean>('return lateTrack.readyState === "ended"'));
    await setWay(firstWay);
  }, 60_000);

  test('a worker that dies is said, and the next thing done starts another', async () => {
    const { identifier } = await onEveryPage(`
      window.workers = [];
      window.Worker = class extends Worker { constructor(...args) { super(...args); workers.push(this); } };`);
    const id = await sendShot(await plainPng(600, 400, '#FFFFFF'), 'Outlives a worker');
    await app.go(`/shots/${id}`);
    await app.stage();
    await app.keys('b');
    await marking.drag(100, 100, 220, 180);
    await app.stored();
    await allowClipboard(browser);
    await app.chord(Key.CONTROL, 'c');
    await app.sees('Copied');
    expect(await run<number>('return workers.length')).toBeGreaterThan(0);
    await run(
      `for (const worker of workers) { worker.terminate(); worker.dispatchEvent(new ErrorEvent('error', { message: 'out of memory', cancelable: true })); }`,
    );
    await app.sees('A part of Rezzik in this page has stopped');
    await app.click('Close');
    await app.keys('o');
    await marking.drag(300, 100, 420, 180);
    await app.chord(Key.CONTROL, 'c');
    await app.sees('Copied');
    expect((await marking.marksOf(id)).map(({ kind }) => kind)).toEqual(['box', 'oval']);
    await browser.driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', {
      identifier,
    });
  }, 60_000);
});

describe('ways in and out that no key leads to', () => {
  test('a picture is pasted by its chip, and where one can be dropped is shown', async () => {
    await app.take();
    await allowClipboard(browser);
    const picture = (await plainPng(120, 90, '#227755')).toString('base64');
    await browser.driver.executeAsyncScript(
      `const [base64, done] = arguments;
       const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
       navigator.clipboard.write([new ClipboardItem({ 'image/png': new Blob([bytes], { type: 'image/png' }) })]).then(done, done);`,
      picture,
    );
    await run(
      `document.body.dispatchEvent(new DragEvent('dragover', { bubbles: true, cancelable: true, dataTransfer: new DataTransfer() }))`,
    );
    await app.sees('Drop the picture or film here');
    await run(
      `document.body.dispatchEvent(new DragEvent('dragleave', { bubbles: true, relatedTarget: null }))`,
    );
    await app.until('hidden', () =>
      run<boolean>(`return !document.body.innerText.includes('Drop the picture or film here')`),
    );
    await app.click('Paste');
    const id = await app.marked();
    await app.stored();
    expect(await getShot(id)).toMatchObject({ width: 120, height: 90 });
  }, 60_000);

  test('a delay for one take is gone with it; one that stays is there for the next', async () => {
    await app.take();
    const chosen = async () =>
      (
        await browser.driver.findElement(
          By.css('[aria-label="Delay in seconds"] [aria-checked="true"]'),
        )
      ).getText();
    for (const [stays, left] of [
      [true, '1'],
      [false, '0'],
    ] as const) {
      await app.click('1 s');
      const keep = await app.named('Stays for the next takes');
      if (((await keep.getAttribute('aria-checked')) === 'true') !== stays) await keep.click();
      await app.keys(Key.ENTER);
      await app.marked();
      await app.stored();
      await walk('/take');
      await app.desk();
      expect([stays, await chosen()]).toEqual([stays, left]);
    }
  }, 60_000);

  test('a take is handed to a listed program, as chosen in Then', async () => {
    const data = dirname(process.env.REZZIK_ROOTS ?? '');
    const [list, script, out] = [
      join(data, 'programs.json'),
      join(data, 'take.mjs'),
      join(data, 'take.txt'),
    ];
    writeFileSync(
      script,
      `import { writeFileSync } from 'node:fs'; writeFileSync(${JSON.stringify(out)}, process.argv.at(-1));`,
    );
    writeFileSync(
      list,
      JSON.stringify([{ name: 'Note the take', command: process.execPath, args: [script] }]),
    );
    chmodSync(list, 0o600);
    await newFolder('Handed', { isDefault: true });
    await app.take();
    await app.choose(await app.named('Another place'), 'Hand to Note the take');
    await app.keys(Key.ENTER);
    await app.until('handed on', () => Promise.resolve(existsSync(out)));
    expect(readFileSync(out, 'utf8')).toMatch(/handed\/.*\.png$/);
    rmSync(list);
    await setWay(firstWay);
  }, 60_000);

  test('offline, Keep says what will happen, and keeps once there is an answer', async () => {
    await openKeep(app, 'Kept later');
    await app.click('Handed');
    const offline = (on: boolean) =>
      browser.driver.sendDevToolsCommand('Network.emulateNetworkConditions', {
        offline: on,
        latency: 0,
        downloadThroughput: -1,
        uploadThroughput: -1,
      });
    await offline(true);
    await app.sees(
      'This browser is offline from Rezzik’s server. Nothing is kept until it answers',
    );
    await offline(false);
    await app.until('online', () =>
      run<boolean>(`return !document.body.innerText.includes('is offline')`),
    );
    await app.click('Keep in 1 place');
    await app.sees('Kept in Handed');
  }, 60_000);
});
