import { beforeEach, describe, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { markSchema, type Mark } from '@/core/marks/registry';
import { everyMark } from '@/tests/lib/marks';
import { getPixels, getShot, pixelAt } from './lib/app';
import { ask } from './lib/hand';
import { app, browser, inOneBrowser, marking } from './lib/suite';

/** Mark in a practised hand: nothing jumps, nothing is cut, all is reached. */

inOneBrowser();

const tools = [...'galbophtxqjznyducesmikr.'];

async function size(width: number, height: number): Promise<void> {
  await browser.driver.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    ...{ width, height, deviceScaleFactor: 1, mobile: false },
  });
}

interface Places {
  stage: string;
  strip: number;
  cut: number;
}

/** Where the picture is, and whether the strip above it is one line that holds what is on it. */
const LOOK = `const look = () => {
  const box = document.querySelector('[data-testid="stage"]').getBoundingClientRect();
  const strip = document.querySelector('[role="toolbar"][aria-label^="Settings of"]');
  const { height } = strip?.getBoundingClientRect() ?? { height: 46 };
  return {
    stage: [box.x, box.y, box.width, box.height].join(' '),
    strip: height,
    cut: strip ? strip.scrollWidth - strip.clientWidth : 0,
  };
};`;
const places = () => browser.driver.executeScript<Places>(`${LOOK} return look();`);

/** Presses keys one after the other where the focus is; what is to be seen in the frame after each. */
const seenAfter = (keys: readonly string[]) =>
  browser.driver.executeAsyncScript<[string, Places][]>(
    `${LOOK}
     const [keys, done] = arguments;
     const frame = () => new Promise((next) => requestAnimationFrame(() => setTimeout(next)));
     (async () => {
       const seen = [];
       for (const key of keys) {
         const on = document.activeElement ?? document.body;
         on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
         await frame();
         seen.push([key, look()]);
       }
       done(seen);
     })();`,
    keys,
  );

/** Whatever became of a test, the next one begins at the usual size. */
beforeEach(() => size(1280, 800));

describe('the picture stays where it is', () => {
  test.each([
    [1280, 800],
    [1024, 700],
    [640, 400],
  ])(
    'with every tool, mark and the rail at %i × %i',
    async (width, height) => {
      await marking.open(everyMark.map((mark) => ({ ...mark })));
      await size(width, height);
      const listed = width > 1000;
      if (listed && width < 1180) await app.click('Show marks and map');
      await app.atRest();
      const { stage } = await places();
      const still = { stage, strip: 46, cut: 0 };
      const keys = [...tools, 'Escape', 'w', 'p', 'Escape', 'g'];
      expect(await seenAfter(keys)).toEqual(keys.map((key) => [key, still]));
      if (listed) {
        await browser.driver.findElement(By.css('[data-row]')).click();
        const down = everyMark.map(() => 'ArrowDown');
        expect(await seenAfter(down)).toEqual(down.map((key) => [key, still]));
      }
      if (listed && width < 1180) await app.click('Hide marks and map');
      await size(1280, 800);
    },
    120_000,
  );

  test('at 200 % of 1280 × 800 it has half of the height', async () => {
    await marking.open();
    await size(640, 400);
    await app.atRest();
    const { stage } = await places();
    expect(Number(stage.split(' ')[3])).toBeGreaterThanOrEqual(200);
    await size(1280, 800);
  }, 60_000);

  test('while another tab’s change is told of', async () => {
    const id = await marking.open();
    const { stage } = await places();
    const { revision, document } = await getShot(id);
    await ask(`/api/shots/${id}`, 'PUT', {
      revision,
      document: { ...document, description: 'Elsewhere' },
    });
    await app.keys('b');
    await marking.drag(100, 100, 200, 200);
    await app.sees('changed in another tab');
    expect((await places()).stage).toBe(stage);
  }, 60_000);
});

test('what does not fit on the strip is behind one button, and works there', async () => {
  const id = await marking.open();
  await size(640, 400);
  await app.keys('b');
  await marking.drag(100, 100, 400, 300);
  expect(await app.has('[role="slider"][aria-label="Corners"]')).toBe(false);
  await app.click('More settings');
  const corners = await app.named('Corners');
  await corners.sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  // A key acts from there as from anywhere, and Esc only closes.
  await app.keys('o');
  expect(await app.has('[role="toolbar"][aria-label="Settings of Oval"]')).toBe(true);
  await app.keys('b', Key.ESCAPE);
  expect(await app.has('[role="toolbar"][aria-label="Settings of Box"]')).toBe(true);
  expect(await app.has('[role="slider"][aria-label="Corners"]')).toBe(false);
  expect((await marking.marksOf(id))[0]).toMatchObject({ kind: 'box', corner: 2 });
  await size(1280, 800);
}, 60_000);

describe('colours by value', () => {
  const typed = async (text: string) => {
    await app.click('Colour: another colour …');
    await app.type('Typed', text);
  };

  test('HEX, RGB and HSL, with an opacity, for the mark and the tool; what is none is told', async () => {
    const id = await marking.open();
    await app.keys('b');
    await marking.drag(100, 100, 300, 200);
    await typed('hsl(12 63% 44%)');
    expect((await marking.marksOf(id))[0]).toMatchObject({ colour: '#B7462A' });
    await typed('rgb(0 0 255 / 50%)');
    await app.until('it is stored', async () => {
      const [mark] = await marking.marksOf(id);
      return mark?.kind === 'box' && mark.opacity === 0.5;
    });
    const [r = 0, g = 0, b = 0] = pixelAt(await getPixels(id, 'picture'), 100, 150);
    expect([r, g, b].map((v, i) => Math.abs(v - ([127, 127, 255][i] ?? 0)) <= 1)).toEqual([
      ...[true, true, true],
    ]);
    await typed('rgb(300 0 0)');
    await app.sees('each from 0 to 255');
    await app.type('Typed', '#00000000');
    await app.sees('The least opacity is 5 %');
    await app.keys(Key.ESCAPE);
    expect((await marking.marksOf(id))[0]).toMatchObject({ colour: '#0000FF', opacity: 0.5 });
    // The next box is like this one.
    await app.keys('b');
    await marking.drag(320, 220, 500, 320);
    expect((await marking.marksOf(id))[1]).toMatchObject({ colour: '#0000FF', opacity: 0.5 });
  }, 60_000);

  test('what hides has no opacity', async () => {
    const id = await marking.open();
    await app.keys('j');
    await marking.drag(100, 100, 300, 200);
    await typed('#11223380');
    await app.sees('covers what is below');
    await app.keys(Key.ESCAPE);
    const [mark] = await marking.marksOf(id);
    expect(mark).not.toHaveProperty('opacity');
    expect(await app.has('[role="slider"][aria-label="Opacity"]')).toBe(false);
  }, 60_000);
});

describe('thickness from the picture itself', () => {
  const wheel = (deltaY: number) =>
    browser.driver.executeScript(`
      const stage = document.querySelector('[data-testid="stage"]');
      const box = stage.getBoundingClientRect();
      stage.dispatchEvent(new WheelEvent('wheel', {
        bubbles: true, cancelable: true, altKey: true, deltaY: ${deltaY},
        clientX: box.left + 300, clientY: box.top + 200,
      }));`);
  const arrow = markSchema.parse({
    ...{ id: 'a', kind: 'arrow', from: { x: 100, y: 100 }, to: { x: 300, y: 200 } },
    ...{ colour: '#D55E00', thickness: 6, heads: 'end' },
  });

  test('Alt and the wheel, or two keys, for the mark that is selected and for the tool', async () => {
    const id = await marking.open([arrow]);
    await app.keys('g');
    await marking.click(200, 150);
    const { stage } = await places();
    await wheel(-100);
    await wheel(-100);
    await app.sees('Thickness 8 px');
    await app.chord(Key.ALT, Key.ARROW_DOWN);
    expect((await marking.marksOf(id))[0]).toMatchObject({ thickness: 7 });
    expect((await places()).stage).toBe(stage);
    await app.keys(Key.ESCAPE, 'p');
    await wheel(300);
    await marking.drag(100, 300, 300, 320);
    const pen = (await marking.marksOf(id))[1];
    expect(pen).toMatchObject({ kind: 'pen', thickness: 5 });
    // Words have a size, a Close-up how much it enlarges.
    await app.keys('u');
    await wheel(-100);
    await app.sees('Enlarged 2.5 ×');
    for (let i = 0; i < 20; i += 1) await wheel(-100);
    await app.sees('Enlarged 8 ×');
  }, 60_000);

  test('during a stroke nothing changes, and the stroke is not lost', async () => {
    const id = await marking.open();
    await app.keys('p');
    const stage = await marking.stage();
    const [from, to] = [await marking.at(100, 100), await marking.at(300, 200)];
    const box = await stage.getRect();
    const place = ({ x, y }: { x: number; y: number }) => ({
      origin: stage,
      x: Math.round(x - box.width / 2),
      y: Math.round(y - box.height / 2),
    });
    const actions = browser.driver.actions({ async: true });
    await actions.move(place(from)).press().move(place(to)).perform();
    await wheel(-100);
    await browser.driver.actions({ async: true }).release().perform();
    const marks = await marking.marksOf(id);
    expect(marks).toHaveLength(1);
    expect(marks[0]).toMatchObject({ kind: 'pen' });
    expect(marks[0]?.kind === 'pen' && marks[0].points.length).toBeGreaterThan(1);
  }, 60_000);
});

test('Strew scatters a stamp of choice, the same after a reload', async () => {
  const id = await marking.open();
  await app.keys('p');
  await app.choose(await browser.driver.findElement(By.css('label:has(option) select')), 'Strew');
  await marking.drag(100, 200, 500, 210);
  const [pen] = await marking.marksOf(id);
  expect(pen).toMatchObject({ kind: 'pen', tip: 'strew', strewn: 'star' });
  const painted = await getPixels(id, 'picture');
  const coloured = Buffer.from(painted.data).filter((v) => v < 250).length;
  expect(coloured).toBeGreaterThan(4_000);
  await browser.driver.navigate().refresh();
  await app.stage();
  expect(Buffer.compare((await getPixels(id, 'picture')).data, painted.data)).toBe(0);
}, 60_000);

test('a stroke may begin on the rail’s band; Grab moves the rail by it', async () => {
  const id = await marking.open();
  await app.keys('w', 'p');
  // The rail lies level through 300, 200; its band is below.
  await marking.drag(200, 220, 420, 224);
  const [pen] = await marking.marksOf(id);
  expect(pen?.kind).toBe('pen');
  if (pen?.kind === 'pen') expect(pen.points.every(([, y]) => Math.abs(y - 200) < 0.1)).toBe(true);
  expect(await (await app.field('Rail angle')).getAttribute('value')).toBe('0');
  await app.keys('g');
  await marking.drag(200, 220, 200, 320);
  await app.keys('p');
  await marking.drag(200, 318, 420, 324);
  const second = (await marking.marksOf(id))[1];
  if (second?.kind !== 'pen') throw new Error('no second stroke');
  expect(second.points.every(([, y]) => Math.abs(y - 300) < 1)).toBe(true);
}, 60_000);

test('a round stroke may become a circle', async () => {
  const id = await marking.open();
  await app.keys('p');
  const stage = await marking.stage();
  const box = await stage.getRect();
  let actions = browser.driver.actions({ async: true });
  for (let i = 0; i <= 36; i += 1) {
    const angle = (i / 36) * 2 * Math.PI;
    const p = await marking.at(300 + 90 * Math.cos(angle), 200 + 90 * Math.sin(angle));
    actions = actions.move({
      ...{ origin: stage, duration: 10 },
      x: Math.round(p.x - box.width / 2),
      y: Math.round(p.y - box.height / 2),
    });
    if (i === 0) actions = actions.press();
  }
  await actions.release().perform();
  const chip = await browser.driver.findElement(By.css('[role="group"][aria-label="True up"]'));
  expect(await chip.getText()).toMatch(/Circle[\s\S]*Oval/);
  await app.click('Circle');
  const [oval] = await marking.marksOf(id);
  if (oval?.kind !== 'oval') throw new Error('no oval');
  expect(oval.width).toBe(oval.height);
  expect(Math.abs(oval.width - 180)).toBeLessThan(3);
}, 60_000);

describe('the Marks list', () => {
  const box = (i: number): Mark =>
    markSchema.parse({
      ...{ id: `b${i}`, kind: 'box', x: 10 + (i % 20) * 25, y: 10 + (i % 15) * 22 },
      ...{ width: 20, height: 15, colour: '#0072B2', outline: 2 },
    });

  test('five thousand scroll with the column; all are reached by keys; settings are whole', async () => {
    const far = { ...box(2_499), x: 550, y: 370 } as Mark;
    await marking.open(Array.from({ length: 5_000 }, (_, i) => (i === 2_499 ? far : box(i))));
    const seen = await browser.driver.executeScript<[number, number, number]>(`
      const list = document.querySelector('section[aria-label="Marks"] ul');
      return [list.scrollHeight - list.clientHeight, list.children.length, list.clientHeight];`);
    expect(seen[0]).toBe(0);
    expect(seen[1]).toBeLessThan(80);
    expect(seen[2]).toBeGreaterThan(5_000 * 30);
    await browser.driver.findElement(By.css('[data-mark="b0"]')).click();
    await app.keys(...Array.from({ length: 60 }, () => Key.ARROW_DOWN));
    expect(await browser.driver.executeScript('return document.activeElement?.dataset.mark')).toBe(
      'b60',
    );
    const whole = () =>
      browser.driver.executeScript<boolean>(`
        const row = document.querySelector('[data-mark][aria-pressed="true"]').closest('li');
        const [r, c] = [row, row.closest('aside')].map((e) => e.getBoundingClientRect());
        return row.getAttribute('aria-setsize') === '5000' && !!row.querySelector('input')
          && r.top >= c.top - 1 && r.bottom <= c.bottom + 1;`);
    await app.until('its settings are wholly seen', whole);
    const focused = () =>
      browser.driver.executeScript('return document.activeElement?.dataset.mark');
    await app.keys(Key.END);
    expect(await focused()).toBe('b4999');
    await app.keys(Key.HOME);
    expect(await focused()).toBe('b0');
    // One that is far off, chosen on the picture.
    await app.keys('g');
    await marking.click(550, 378);
    await app.until('the settings of the other, too', whole);
    // One that goes hands the focus to the one that follows.
    await browser.driver.findElement(By.css('[data-mark="b2499"]')).click();
    await app.keys(Key.DELETE);
    await app.until(
      'the next one',
      async () =>
        (await browser.driver.executeScript('return document.activeElement?.dataset.mark')) ===
        'b2500',
    );
  }, 90_000);

  test('one visible command takes all marks away, but not the locked; undo brings them back', async () => {
    const id = await marking.open([box(1), { ...box(2), locked: true }, box(3)]);
    await app.click('Remove all marks');
    expect((await marking.marksOf(id)).map((m) => m.id)).toEqual(['b2']);
    expect(await (await app.named('Remove all marks')).isEnabled()).toBe(false);
    await app.chord(Key.CONTROL, 'z');
    expect(await marking.marksOf(id)).toHaveLength(3);
  }, 60_000);
});
