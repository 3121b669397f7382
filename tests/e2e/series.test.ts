import { afterEach, expect, test } from '@jest/globals';
import { By, Key } from 'selenium-webdriver';
import { seriesListSchema, seriesSchema, type Series } from '@/core/contracts/series';
import { read, setWay } from './lib/app';
import { appUrl } from './lib/browser';
import { ask, Hand, post, promised } from './lib/hand';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();

/** From an hour on, so that nothing is taken by itself meanwhile. */
const hourly = () => ({
  name: 'Readings',
  what: { source: 'desk', kind: 'window', window: 'Sensors' },
  times: { when: { every: 3600 }, begins: new Date(Date.now() + 3_600_000).toISOString() },
});
const all = async (): Promise<Series[]> =>
  seriesListSchema.parse(await (await read('/api/series')).json()).series;
const now = async (id: string): Promise<Series> =>
  seriesSchema.parse(await (await read(`/api/series/${id}`)).json());
const begun = async (more: object = {}): Promise<Series> =>
  seriesSchema.parse(await post('/api/series', { ...hourly(), ...more }));
const takeNow = async (id: string, taken: number): Promise<void> => {
  await post(`/api/series/${id}/now`, {});
  await app.until(`${taken} taken`, async () => (await now(id)).taken === taken);
};
const outlines = (look: string) =>
  browser.driver.findElements(By.css(`[data-outline="${look}"]`)).then(({ length }) => length);

afterEach(async () => {
  for (const { id } of await all()) await ask(`/api/series/${id}`, 'DELETE', {});
});

/** docs/actions.md: a series in six actions. */
test('a series is set up in a few actions, goes on with every tab closed, and is there when one comes back', async () => {
  await setWay({ source: 'desk', kind: 'full' });
  await app.take();
  const hand = new Hand(app);
  await hand.key('8');
  await hand.key(Key.ENTER);
  await app.sees('What that comes to');
  await hand.does(() => app.keys('Readings'));
  await hand.does(() => app.click('Window'));
  const title = await app.field('Its title has');
  await hand.does(() => title.sendKeys('sensors'));
  await app.sees('Every 15 minutes');
  await hand.key(Key.ENTER);
  await app.sees('goes on by itself');
  expect(hand.actions).toBe(promised.get('A place taken by the clock'));
  const [series] = await all();
  const id = series?.id ?? '';
  expect(series).toMatchObject({
    ...{ name: 'Readings', state: 'running', what: { kind: 'window', window: 'sensors' } },
  });
  // Once a second, so that nobody waits here.
  const times = { ...series?.times, when: { every: 1, between: null } };
  await ask(`/api/series/${id}`, 'PATCH', { times });
  await browser.driver.get('about:blank');
  const before = (await now(id)).taken;
  await app.until('it goes on', async () => (await now(id)).taken >= before + 3);
  await ask(`/api/series/${id}`, 'PATCH', { state: 'paused' });
  await app.go(`/series/${id}`);
  await app.sees('Paused');
  const { taken } = await now(id);
  await app.sees(`${taken} taken`);
  const [day] = await browser.driver.findElements(By.css('[role="radio"][aria-label*="taken"]'));
  expect(await day?.getAttribute('aria-label')).toContain(`${taken} taken`);
}, 90_000);

test('a form that was begun is not lost to Esc, and begins one series however often it is pressed', async () => {
  await app.go('/series/new');
  await app.sees('What that comes to');
  // The first leaves the field.
  await app.keys('Once', Key.ESCAPE, Key.ESCAPE);
  await app.sees('Leave this series?');
  await app.keys(Key.ESCAPE);
  const begin = await app.named('Begin the series');
  await browser.driver.executeScript('arguments[0].click(); arguments[0].click();', begin);
  await app.sees('goes on by itself');
  expect((await all()).map(({ name }) => name)).toEqual(['Once']);
}, 60_000);

test('pauses, goes on, takes one by hand, and ends after being asked', async () => {
  const { id } = await begun();
  await app.go(`/series/${id}`);
  await app.sees('Next:');
  await app.click('Pause');
  await app.sees('Paused');
  await app.click('Go on');
  await app.sees('Next:');
  await app.click('Take one now');
  await app.sees('1 taken');
  await app.click('End');
  await app.click('Leave it');
  expect((await now(id)).state).toBe('running');
  await app.click('End');
  await app.click('End it');
  await app.sees('Ended. You ended it.');
  expect(await app.has('main')).toBe(true);
  await app.go('/series');
  await app.sees('1 taken');
}, 60_000);

test('is stepped through with what differs outlined, and what is missed is told with its reason', async () => {
  const { id } = await begun();
  await takeNow(id, 1);
  await browser.driver.sleep(1100);
  await takeNow(id, 2);
  const gone = { what: { source: 'desk', kind: 'window', window: 'Nothing like it' } };
  await ask(`/api/series/${id}`, 'PATCH', gone);
  await post(`/api/series/${id}/now`, {});
  await app.go(`/series/${id}`);
  await app.sees('1 missed');
  await app.sees('No window was called “Nothing like it” then.');
  // The last picture is in sight, against the one before it.
  await app.until('outlines', async () => (await outlines('differs')) > 0);
  await app.sees('Readings 002');
  await app.keys(Key.ARROW_LEFT);
  await app.sees('The first of this series.');
  expect(await outlines('differs')).toBe(0);
  await app.keys(Key.ARROW_RIGHT);
  await app.sees('from the one before');
  await app.click('Outline what differs');
  await app.until('no outlines', async () => (await outlines('differs')) === 0);
  // A control was touched; the keys act all the same.
  await app.keys(Key.ARROW_LEFT);
  await app.sees('The first of this series.');
  await app.keys(Key.ENTER);
  await app.until('it is open in Mark', async () =>
    (await browser.driver.getCurrentUrl()).includes('/shots/'),
  );
}, 60_000);

test('what is watched and what is ignored is drawn on its picture, or given by numbers', async () => {
  const { id } = await begun({ onlyChanged: { least: 0, watch: null, ignore: [] } });
  await takeNow(id, 1);
  await app.go(`/series/${id}`);
  await app.sees('All of the picture is watched');
  await app.click('Watch an area');
  await app.atRest();
  const picture = await browser.driver.findElement(By.css('main img[alt="Readings 001"]'));
  const box = await picture.getRect();
  const at = (x: number, y: number) => ({
    ...{ x: Math.round(box.x + box.width * x), y: Math.round(box.y + box.height * y) },
  });
  await browser.driver
    .actions({ async: true })
    .move({ ...at(0.25, 0.5), duration: 0 })
    .press()
    .move({ ...at(0.5, 0.6), duration: 40 })
    .move({ ...at(0.75, 0.75), duration: 40 })
    .release()
    .perform();
  await app.sees('Watched is one area');
  await app.until('it is stored', async () => Boolean((await now(id)).onlyChanged?.watch));
  const { onlyChanged } = await now(id);
  expect(onlyChanged?.watch?.x).toBeCloseTo(190, -1);
  expect(onlyChanged?.watch?.width).toBeCloseTo(380, -1);
  expect(onlyChanged?.watch?.height).toBeCloseTo(107, -1);
  await app.click('Ignore an area');
  await app.sees('Drag over it');
  await app.keys(Key.ESCAPE);
  expect(await app.has('main')).toBe(true);
  await app.click('Ignore an area');
  await app.click('give it by numbers');
  await app.sees('one is ignored');
  await app.until('it is stored', async () => (await now(id)).onlyChanged?.ignore.length === 1);
  expect((await now(id)).onlyChanged?.ignore).toEqual([{ x: 0, y: 0, width: 200, height: 100 }]);
  // One right after the other: neither is lost.
  await app.type('Left', '7');
  await app.type('Width', '90', Key.TAB);
  await app.until('both are stored', async () => {
    const watch = (await now(id)).onlyChanged?.watch;
    return watch?.x === 7 && watch.width === 90;
  });
  await app.click('No longer: Ignored 1');
  await app.until('gone', async () => (await now(id)).onlyChanged?.ignore.length === 0);
}, 60_000);

test('of a day with many times the earlier ones are shown when asked for', async () => {
  const { id } = await begun({
    what: { source: 'desk', kind: 'window', window: 'Nothing like it' },
  });
  const many = 203;
  for (let i = 0; i < many; i += 1) await post(`/api/series/${id}/now`, {});
  await app.until('all are missed', async () => (await now(id)).missed === many);
  await app.go(`/series/${id}`);
  const listed = () =>
    browser.driver
      .findElements(By.css('[aria-label="Times of the day"] [role="radio"]'))
      .then(({ length }) => length);
  await app.until('the last ones', async () => (await listed()) === 200);
  await app.click('Earlier times');
  await app.until('all of them', async () => (await listed()) === many);
}, 90_000);

test('is changed in its form, and what cannot be is said there with nothing lost', async () => {
  const { id } = await begun();
  await app.go(`/series/${id}`);
  await app.click('Edit');
  await app.click('At set times');
  await app.type('Times', '9:00 noon');
  await app.sees('“noon” is no time');
  // What was typed is still there, to be put right.
  const times = await app.field('Times');
  expect(await times.getAttribute('value')).toBe('9:00 noon');
  await times.sendKeys(...Array.from('noon', () => Key.BACK_SPACE), '13.30', Key.ENTER);
  await app.until('it is stored', async () => 'at' in (await now(id)).times.when);
  expect((await now(id)).times.when).toEqual({ at: ['09:00', '13:30'] });
  await app.sees('At 09:00, 13:30');
  await app.click('Remove the series');
  await app.click('Remove it');
  await app.sees('There is no series yet.');
  expect(await browser.driver.getCurrentUrl()).toBe(`${appUrl()}/series`);
}, 60_000);
