import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { By, Key, until, type WebElement } from 'selenium-webdriver';
import { z } from 'zod';
import { deskBounds, createDesk } from '@/core/desk/model';
import { firstWay } from '@/core/contracts/way';
import { App, getPixels, getShot, listShots, pixelAt, setWay, WAIT } from './lib/app';
import { fakeDevices, openBrowser, type Browser } from './lib/browser';

let browser: Browser;
let app: App;

beforeAll(async () => {
  browser = await openBrowser({
    args: fakeDevices,
  });
  app = new App(browser.driver);
}, 60_000);
afterAll(() => browser.close());
afterEach(() => setWay(firstWay));

const still = (): Promise<WebElement> =>
  browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);

/** The stilled picture and how its pixels lie on the page. */
async function stilled(width: number) {
  const picture = await still();
  const scale = (await picture.getRect()).width / width;
  return { picture, on: (x: number, y: number) => ({ x: x * scale, y: y * scale }) };
}

const said = async (label: string): Promise<string> =>
  (await browser.driver.findElement(By.css(`output[aria-label="${label}"]`))).getText();

const order = createDesk(2026, 0).windows.find((w) => w.name === 'exchange')?.bounds;
const register = createDesk(2026, 0).windows.find((w) => w.name === 'register')?.bounds;
const onWhole = (r: { x: number; y: number; width: number; height: number } | undefined) => {
  if (!r) throw new Error('no window');
  return { ...r, x: r.x - deskBounds.x, y: r.y - deskBounds.y };
};

describe('window', () => {
  test('the one under the pointer is offered with its title and size, and a click takes it', async () => {
    await app.take();
    await app.keys('2', Key.ENTER);
    const { picture, on } = await stilled(deskBounds.width);
    await app.pointAt(picture, on(100, 400));
    await app.until('its name', async () => (await said('Window')).startsWith('Plant register'));
    expect(await said('Window')).toBe('Plant register · 700 × 560 px');
    await app.clickAt(picture, on(100, 400));
    const id = await app.marked();
    await app.stored();
    const shot = await getShot(id);
    expect(shot.document.view.crop).toEqual(onWhole(register));
    expect(shot).toMatchObject({
      title: expect.stringMatching(/^Window \d+, Plant register$/),
      provenance: { windowTitle: 'Plant register' },
    });
  }, 60_000);

  test('a covered one comes whole, by Tab; letters find one by its title', async () => {
    await app.take();
    await app.keys('2', Key.ENTER);
    await still();
    await app.keys(Key.TAB);
    expect(await said('Window')).toContain('Plant register');
    await app.keys('b', 'e', 'd');
    expect(await said('Window')).toContain('Bed map');
    await app.keys(Key.ARROW_RIGHT);
    expect(await said('Window')).toContain('Seed exchange');
    await app.keys(Key.TAB, Key.ENTER);
    const id = await app.marked();
    await app.stored();
    const r = onWhole(register);
    const pixels = await getPixels(id, 'picture?format=png');
    expect([pixels.width, pixels.height]).toEqual([r.width, r.height]);
    // The order's window lies over this corner on the desk; here it is the register's own ground.
    expect(pixelAt(pixels, r.width - 12, r.height - 60)).toEqual([253, 253, 250, 255]);
  }, 60_000);

  test('the one in use is taken at once, without choosing', async () => {
    await setWay({ kind: 'window', inUse: true, source: 'desk', border: false });
    await app.take();
    await app.click('Take the window in use');
    const id = await app.marked();
    await app.stored();
    const shot = await getShot(id);
    expect(shot.title).toMatch(/^Window \d+, Seed exchange – order$/);
    const r = onWhole(order);
    expect(shot.document.view.crop).toEqual({ ...r, y: r.y + 30, height: r.height - 30 });
  }, 60_000);
});

describe('free shape', () => {
  test('a polygon by clicks, a corner pulled; outside it is transparent, and Mark can change it', async () => {
    await setWay({ kind: 'shape', shape: 'polygon' });
    await app.take();
    await app.click('Take a free shape');
    const { picture, on } = await stilled(1440);
    for (const [x, y] of [
      [100, 100],
      [500, 100],
      [500, 500],
    ] as const) {
      await app.clickAt(picture, on(x, y));
    }
    await app.keys(Key.ENTER);
    await app.drag(picture, on(500, 500), on(600, 520));
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.stored();
    const { view } = (await getShot(id)).document;
    expect(view.shape?.kind).toBe('polygon');
    expect(Math.abs(view.crop.width - 500)).toBeLessThan(6);
    const pixels = await getPixels(id, 'picture?format=png');
    expect(pixelAt(pixels, 2, pixels.height - 3)[3]).toBe(0);
    expect(pixelAt(pixels, 300, 20)[3]).toBe(255);
    await app.keys('k');
    await app.moreSettings();
    const choice = await app.driver.findElement(By.xpath("//label[contains(., 'Shape')]//select"));
    await choice.sendKeys('Oval');
    await app.keys(Key.ESCAPE, Key.ENTER);
    await app.until('an oval', async () => {
      const now = (await getShot(id)).document.view;
      return now.shape?.kind === 'oval';
    });
    const oval = await getPixels(id, 'picture?format=png');
    expect(pixelAt(oval, 1, 1)[3]).toBe(0);
    expect(pixelAt(oval, oval.width >> 1, oval.height >> 1)[3]).toBe(255);
  }, 60_000);

  test('a loop by hand; drawing back over it takes it back', async () => {
    await setWay({ kind: 'shape', shape: 'loop' });
    await app.take();
    await app.click('Take a free shape');
    const { picture, on } = await stilled(1440);
    const rect = await picture.getRect();
    const place = (x: number, y: number) => {
      const p = on(x, y);
      return {
        origin: picture,
        x: Math.round(p.x - rect.width / 2),
        y: Math.round(p.y - rect.height / 2),
      };
    };
    let actions = app.driver
      .actions({ async: true })
      .move({ ...place(200, 200), duration: 0 })
      .press();
    const go = (x: number, y: number) => {
      actions = actions.move({ ...place(x, y), duration: 8 });
    };
    for (let x = 215; x <= 400; x += 15) go(x, 200);
    for (let y = 215; y <= 330; y += 15) go(400, y);
    // A slip to the right, taken back along itself.
    for (let x = 415; x <= 505; x += 15) go(x, 335);
    for (let x = 490; x >= 400; x -= 15) go(x, 335);
    for (let x = 390; x >= 200; x -= 15) go(x, 340);
    await actions.release().perform();
    await app.keys(Key.ENTER);
    const id = await app.marked();
    await app.stored();
    const { crop } = (await getShot(id)).document.view;
    expect(Math.abs(crop.x - 200)).toBeLessThan(8);
    expect(crop.x + crop.width).toBeLessThan(430);
  }, 60_000);
});

describe('part and region', () => {
  test('a button is found in the picture; the arrow keys go out to its window', async () => {
    await setWay({ kind: 'part' });
    await app.take();
    await app.click('Take a part');
    const { picture, on } = await stilled(1440);
    await app.sees('around this place');
    // “Print slip” on the order's window.
    await app.pointAt(picture, on(676, 558));
    await app.until('the button', async () => /^10\d × 3\d px/.test(await said('Part')));
    await app.keys(Key.ARROW_UP);
    expect(await said('Part')).toContain('2 of');
    await app.keys(Key.ARROW_DOWN, Key.ENTER);
    const id = await app.marked();
    await app.stored();
    const { crop } = (await getShot(id)).document.view;
    const pixels = await getPixels(id, 'picture?format=png');
    expect(crop.width).toBeGreaterThan(90);
    const [r = 0, g = 0, b = 0] = pixelAt(pixels, 6, crop.height >> 1);
    expect(g).toBeGreaterThan(Math.max(r, b) + 30);
  }, 60_000);

  test('the same region again at once, with its time; the pointer comes as a piece', async () => {
    await setWay({ kind: 'region', atOnce: true, pointer: true });
    const desk = await app.take();
    await app.clickAt(desk, await app.deskPoint({ x: 700, y: 400 }));
    await app.click('Take a region');
    const { picture, on } = await stilled(1440);
    await app.drag(picture, on(610, 200), on(905, 395));
    const first = await app.marked();
    await app.stored();
    const { crop } = (await getShot(first)).document.view;
    await app.take();
    await app.keys('6');
    await app.sees(`${crop.width} × ${crop.height}`);
    await app.keys(Key.ENTER);
    await app.until('another shot', async () => (await app.id().catch(() => first)) !== first);
    const again = await app.marked();
    await app.stored();
    expect((await getShot(again)).document.view.crop).toEqual(crop);
  }, 60_000);

  test('on the stilled picture the kind changes by its key, a colour is read off, Esc leaves no trace', async () => {
    const before = (await listShots()).total;
    await setWay({ kind: 'region' });
    await app.take();
    await app.click('Take a region');
    const { on } = await stilled(1440);
    await app.keys('i');
    await app.sees('Click a pixel');
    await app.pointAt(await still(), on(20, 20));
    await app.until('a colour', async () => /^#[0-9A-F]{6} at/.test(await said('Colour')));
    await app.keys('m');
    await app.sees('Drag from one place');
    await app.drag(await still(), on(100, 100), on(400, 500));
    expect(await said('Distance')).toMatch(
      /width (29[89]|30[012]), height (39[89]|40[012]), diagonal (49[89]|50[012])/,
    );
    await app.keys('4');
    await app.sees('no shape yet');
    await app.keys('3');
    await app.sees('no region yet');
    await app.keys(Key.ESCAPE);
    await app.desk();
    expect((await listShots()).total).toBe(before);
  }, 60_000);
});

describe('then and routines', () => {
  test('asked on the stilled picture: one key each, for once', async () => {
    await setWay({ kind: 'full', ask: true });
    await app.take();
    await app.keys(Key.ENTER);
    await app.sees('What with it?');
    await app.keys('c', 'm', Key.ENTER);
    const id = await app.marked();
    await app.stored();
    expect((await getShot(id)).width).toBe(1440);
  }, 60_000);

  describe('before the settings have come', () => {
    /** Run before the page's own code: the settings come when they are told to. */
    const LATE = `
      const real = window.fetch;
      const late = [];
      window.settingsCome = () => late.forEach((come) => come());
      window.fetch = (ask, init) => String(ask).endsWith('/api/settings') && !init?.method
        ? new Promise((ok) => late.push(() => ok(real(ask, init))))
        : real(ask, init);`;
    const come = () => browser.driver.executeScript('window.settingsCome()');

    let identifier: unknown;
    beforeAll(async () => {
      await browser.driver.sendDevToolsCommand('Page.enable', {});
      const added = await browser.driver.sendAndGetDevToolsCommand(
        'Page.addScriptToEvaluateOnNewDocument',
        { source: LATE },
      );
      ({ identifier } = z.object({ identifier: z.string() }).parse(added));
    });
    afterAll(() =>
      browser.driver.sendDevToolsCommand('Page.removeScriptToEvaluateOnNewDocument', {
        identifier,
      }),
    );
    beforeEach(async () => {
      await setWay({ kind: 'full', ask: true, source: 'desk', display: 'Left' });
      await app.go('/take');
      await app.desk();
      await app.keys(Key.ENTER);
    });

    test('whoever takes takes as they say, however often that was pressed', async () => {
      await app.keys(Key.ENTER, Key.ENTER);
      await come();
      await app.sees('What with it?');
    }, 60_000);

    test('Esc leaves nothing', async () => {
      const { total } = await listShots();
      await app.keys(Key.ESCAPE);
      await come();
      const full = await app.named('Full screen');
      await app.until(
        'the settings',
        async () => (await full.getAttribute('aria-checked')) === 'true',
      );
      await app.desk();
      expect(await app.has('[data-testid="still"]')).toBe(false);
      expect((await listShots()).total).toBe(total);
    }, 60_000);

    test('a silent server holds no take up for long', async () => {
      await app.marked();
    }, 60_000);
  });

  test('a routine is made, runs by its key as it was written, and stays apart from the last way', async () => {
    await setWay({ kind: 'window', inUse: true });
    await app.go('/setup/routines');
    await app.click('New routine');
    await app.type('Name', 'Slip for the shop', '');
    await (await app.field('Key')).sendKeys(Key.F7);
    await app.click('Make the routine');
    await app.sees('Window in use');
    await setWay({ kind: 'region', inUse: false });
    await app.take();
    await app.sees('Slip for the shop');
    await app.keys(Key.F7);
    const id = await app.marked();
    await app.stored();
    expect((await getShot(id)).title).toMatch(/^Window \d+, Seed exchange – order$/);
    await app.take();
    await app.until('a region, as before', async () => {
      const region = await app.named('Region');
      return (await region.getAttribute('aria-checked')) === 'true';
    });
    await app.go('/setup/routines');
    await app.click('Remove Slip for the shop');
    await app.sees('No routine yet.');
  }, 60_000);

  test('a routine whose folder is gone takes all the same, and says so', async () => {
    await setWay({ then: [{ do: 'keep', folderId: crypto.randomUUID() }] });
    const before = (await listShots()).total;
    await app.take();
    await app.keys(Key.ENTER);
    await app.sees('Its folder is gone.');
    expect((await listShots()).total).toBe(before + 1);
  }, 60_000);
});

describe('keys', () => {
  test('a key is changed, a conflict is said, and all are put back', async () => {
    await app.go('/setup/keys');
    await app.click('Key of Part: 5');
    await app.keys('2');
    await app.sees('is already the key of “Window”');
    await app.click('Key of Part: 5');
    await app.keys('y');
    await app.named('Key of Part: Y');
    await app.take();
    const part = async (what: string) => (await app.named('Part')).getAttribute(what);
    // The settings come after the view itself.
    await app.until('its key is known', async () => (await part('aria-keyshortcuts')) === 'y');
    await app.keys('y');
    await app.until('it is chosen', async () => (await part('aria-checked')) === 'true');
    await app.chord(Key.SHIFT, '?');
    await app.sees('Change keys in Setup');
    await app.go('/setup/keys');
    await app.click('All as at first');
    await app.named('Key of Part: 5');
  }, 60_000);
});

describe('camera', () => {
  test('a still from the test device; its own kinds only', async () => {
    await setWay({ source: 'camera' });
    await app.go('/take');
    await app.click('Open the camera');
    await app.until('the picture', () => app.has('video[aria-label="Camera, live"]'));
    expect(await (await app.named('Window')).isEnabled()).toBe(false);
    // Nor is there one to record.
    await app.keys('0');
    const ofClip = '[aria-label="What of it"] [role="radio"][value="window"]';
    const window = await browser.driver.wait(until.elementLocated(By.css(ofClip)), 10_000);
    expect(await window.isEnabled()).toBe(false);
    expect(await window.getAttribute('title')).toContain('A camera sees no windows.');
    await app.keys('1');
    await app.until('it moves', () =>
      browser.driver.executeScript<boolean>(
        'return document.querySelector("video").currentTime > 0.1',
      ),
    );
    await app.click('Take the picture');
    const id = await app.marked();
    await app.stored();
    const shot = await getShot(id);
    expect(shot.provenance.source).toBe('camera');
    expect(shot.width).toBeGreaterThan(300);
    const pixels = await getPixels(id, 'frame');
    // The test device shows a green ground with a moving disc.
    const [r = 0, g = 0] = pixelAt(pixels, 8, pixels.height >> 1);
    expect(g).toBeGreaterThan(r);
  }, 60_000);
});
