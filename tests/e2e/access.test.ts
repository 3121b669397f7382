import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdirSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, until } from 'selenium-webdriver';
import { everyMark } from '@/tests/lib/marks';
import { App, changeSettings, decode, getShot, plainPng, sendShot, WAIT, setWay } from './lib/app';
import { appUrl, openBrowser, type Browser } from './lib/browser';
import { sendClip } from './lib/clip';
import { post } from './lib/hand';

let browser: Browser;
let app: App;
let shot: string;
const axe = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');
const folder = join(process.env.REZZIK_ROOTS ?? '', 'access');

beforeAll(async () => {
  mkdirSync(folder, { recursive: true });
  await fetch(`${appUrl()}/api/folders`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Access', path: folder, pattern: '{title}', isDefault: true }),
  });
  const document = JSON.stringify({
    version: 4,
    view: { crop: { x: 0, y: 0, width: 600, height: 400 } },
    marks: everyMark,
  });
  shot = await sendShot(await plainPng(600, 400, '#FFFFFF'), 'Every mark', { document });
  browser = await openBrowser();
  app = new App(browser.driver);
  await browser.driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
    source: `window.refused = []; document.addEventListener('securitypolicyviolation',
      ({ violatedDirective, blockedURI }) => window.refused.push(violatedDirective + ' ' + blockedURI))`,
  });
}, 120_000);
afterAll(() => browser.close());

interface Violation {
  id: string;
  impact: string;
  nodes: { html: string }[];
}

/** A series that has taken once, with what it watches. */
async function showSeries(): Promise<void> {
  const { id } = await post('/api/series', {
    ...{ name: 'Watched', what: { source: 'desk', kind: 'window', window: 'Sensors' } },
    ...{ times: { when: { every: 3600 } }, onlyChanged: { least: 0 } },
  });
  await app.go(`/series/${id}`);
  await app.sees('1 taken');
  await app.sees('Watch an area');
}

/** Where one is in a view, by ear: landmarks and the heading. */
const places = [
  'region',
  'landmark-one-main',
  'landmark-unique',
  'landmark-no-duplicate-banner',
  'landmark-no-duplicate-contentinfo',
  'page-has-heading-one',
];
const standards = {
  runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
  rules: Object.fromEntries(places.map((rule) => [rule, { enabled: true }])),
};
/** The rules that look at colours: all that can differ between the two sets. */
const colours = { runOnly: { type: 'rule', values: ['color-contrast', 'link-in-text-block'] } };

/** Source: axe-core, rules for WCAG 2.2 A and AA, and for landmarks and headings. */
async function violations(options: object): Promise<string[]> {
  await browser.driver.executeScript(`if (!window.axe) { ${axe} }`);
  const found = await browser.driver.executeAsyncScript<Violation[]>(
    `const [options, done] = arguments;
     axe.run(document, options).then((r) => done(r.violations), (e) => done([{ id: String(e), nodes: [] }]));`,
    options,
  );
  return found.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`);
}

const inColours = (scheme: 'light' | 'dark') =>
  browser.driver.sendDevToolsCommand('Emulation.setEmulatedMedia', {
    features: [
      { name: 'prefers-color-scheme', value: scheme },
      { name: 'prefers-reduced-motion', value: scheme === 'dark' ? 'reduce' : '' },
    ],
  });

/** What axe does not look at: headings counted, groups of radios, what still moves. */
const counted = `
  const groups = [...document.querySelectorAll('[role="radiogroup"]')];
  const chosen = (group) => group.querySelectorAll('[role="radio"][aria-checked="true"]').length;
  return {
    headings: document.querySelectorAll('h1').length,
    title: document.title,
    groups: groups.filter((g) => chosen(g) !== 1).map((g) => g.getAttribute('aria-label')),
    moving: document.getAnimations().length,
  };`;

/**
 * Source: W3C, WCAG 2.2, 1.4.12: with lines of 1.5, paragraphs 2, letters 0.12 and words 0.16 times
 * the size of the letters nothing is lost. What is cut with an ellipsis has its whole words as a title,
 * or is told whole beside it.
 */
const spacious = `
  const sheet = new CSSStyleSheet();
  sheet.replaceSync('* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important } p { margin-bottom: 2em !important }');
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  const lost = [];
  for (const el of document.querySelectorAll('body *')) {
    if (!el.checkVisibility({ visibilityProperty: true }) || el.closest('.sr-only, [aria-hidden="true"], svg, [data-testid="stage"]')) continue;
    const own = [...el.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim() !== '');
    if (!own || el.matches('option, textarea, select')) continue;
    const { overflowX, overflowY, textOverflow } = getComputedStyle(el);
    const hidden = overflowX === 'hidden' || overflowX === 'clip' || overflowY === 'hidden';
    if (!hidden || textOverflow === 'ellipsis') continue;
    if (el.scrollWidth > el.clientWidth + 1 || el.scrollHeight > el.clientHeight + 1)
      lost.push(el.textContent.trim().slice(0, 40));
  }
  document.adoptedStyleSheets = document.adoptedStyleSheets.filter((one) => one !== sheet);
  return lost;`;

/** Titles of the views seen so far; each has one of its own. */
const titles = new Map<string, string>();

describe('axe finds nothing, in the light set and in the dark one', () => {
  const views: [string, () => Promise<unknown>][] = [
    ['Take', () => app.take()],
    [
      'Take, choosing',
      async () => {
        await app.take();
        await app.click('Region');
        await app.click('Take a region');
        await browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);
        await app.keys(Key.ARROW_DOWN);
      },
    ],
    [
      'Take, a window',
      async () => {
        await app.take();
        await app.keys('2', Key.ENTER);
        await app.until('the windows', () => app.has('ul[aria-label="Windows"] button'));
      },
    ],
    [
      'Take, a long page with a gap',
      async () => {
        await setWay({ source: 'desk', display: 'Left', kind: 'long' });
        await app.go('/take');
        const desk = await (await app.desk()).getRect();
        await app.keys(Key.ENTER);
        const wheel = (deltaY: number) =>
          browser.driver.sendDevToolsCommand('Input.dispatchMouseEvent', {
            ...{ type: 'mouseWheel', deltaX: 0, deltaY },
            ...{ x: Math.round(desk.x + 90), y: Math.round(desk.y + 150) },
          });
        await app.sees('Scroll slowly');
        await wheel(100);
        await app.sees('Scroll on.');
        await wheel(1000);
        await app.sees('A gap');
      },
    ],
    [
      'Take, this computer',
      async () => {
        await setWay({ source: 'display', kind: 'full' });
        await app.go('/take');
        await app.named('Allow reading this computer’s screen');
      },
    ],
    [
      'Take, a web page whose address is none',
      async () => {
        await changeSettings({ pagesAllowed: true, pageHosts: ['register.home.arpa'] });
        await setWay({ source: 'web', kind: 'full' });
        await app.go('/take');
        await app.type('Address', 'two words');
        await app.sees('This is no address of a page.');
      },
    ],
    [
      'A new routine',
      async () => {
        await app.go('/setup/routines');
        await app.click('New routine');
        await app.named('Make the routine');
      },
    ],
    [
      'Setup, keys',
      async () => {
        await app.go('/setup/keys');
        await app.named('Key of Part: 5');
      },
    ],
    [
      'Setup, this computer',
      async () => {
        await app.go('/setup/computer');
        await app.sees('Read this computer’s screen');
      },
    ],
    [
      'Setup, words',
      async () => {
        await app.go('/setup/words');
        await app.sees('Read words in pictures');
      },
    ],
    [
      'Setup, archive',
      async () => {
        await app.go('/setup/archive');
        await app.sees('Everything out');
      },
    ],
    [
      'Setup, room',
      async () => {
        await app.go('/setup/room');
        await app.sees('By month');
      },
    ],
    [
      'Shelf, searching',
      async () => {
        await app.go('/shelf?q=with:text+tag:+-nowhere');
        await app.until('a card', () => app.has('[data-shot]'));
        await app.keys('/', Key.END, ' with:');
        await app.until('completions', () => app.has('[role="option"]'));
      },
    ],
    [
      'Shelf, calendar',
      async () => {
        await app.go('/shelf?q=nowhere');
        await app.sees('No shot fits all of this.');
        await app.click('Calendar');
        await app.named('Month before');
      },
    ],
    [
      'Take, shared screen',
      async () => {
        await app.take();
        await app.click('Shared screen');
        await app.named('Share a screen');
      },
    ],
    [
      'Mark',
      async () => {
        await app.openShot(shot);
        await (await browser.driver.findElement(By.css('[data-row]'))).click();
        await app.keys(Key.END);
      },
    ],
    [
      'Mark, cropping',
      async () => {
        await app.openShot(shot);
        await app.keys('k');
      },
    ],
    [
      'Mark, a colour by value',
      async () => {
        await app.openShot(shot);
        await app.keys('b');
        await app.click('Colour: another colour …');
        await app.named('Colour: by eye');
      },
    ],
    [
      'Mark, settings behind their button',
      async () => {
        await app.openShot(shot);
        await app.keys('t');
        await app.click('More settings');
        await app.click('Plate');
      },
    ],
    [
      'Mark, uncovering',
      async () => {
        await app.openShot(shot);
        await (await browser.driver.findElement(By.css('[data-row]'))).click();
        await app.keys(Key.END);
        const eye = By.css('li:has([data-mark="free"]) [aria-label="Switch off"]');
        await (await browser.driver.wait(until.elementLocated(eye), WAIT)).click();
        await app.sees('You will see what is under it');
      },
    ],
    [
      'Mark, what can be done with a mark',
      async () => {
        await app.openShot(shot);
        await (await browser.driver.findElement(By.css('[data-row]'))).click();
        await browser.driver.executeScript(
          `document.querySelector('[data-testid="stage"]').dispatchEvent(
            new MouseEvent('contextmenu', { bubbles: true, cancelable: true, clientX: 400, clientY: 300 }));`,
        );
        await app.until('the menu', () => app.has('[role="menu"]'));
      },
    ],
    [
      'From a phone',
      async () => {
        await app.take();
        await app.click('From a phone');
        await app.sees('The second door is closed');
      },
    ],
    [
      'the trail',
      async () => {
        await app.openShot(shot);
        await app.keys(Key.chord(Key.SHIFT, 'l'));
        await app.sees('Trail');
      },
    ],
    [
      'Keep',
      async () => {
        await app.go(`/shots/${shot}/keep`);
        await app.named('Download');
      },
    ],
    [
      'Shelf',
      async () => {
        await app.go('/shelf');
        await app.click('Every mark');
      },
    ],
    ['Guides', () => app.go('/guides').then(() => app.named('New guide'))],
    ['All series', () => app.go('/series').then(() => app.named('New series'))],
    ['A new series', () => app.go('/series/new').then(() => app.sees('What that comes to'))],
    ['A series', () => showSeries()],
    [
      'A picture of a clip, marked',
      async () => {
        await app.go(`/clips/${await sendClip('Told')}/mark?at=0.5`);
        await app.stage();
        await app.keys('b', Key.ENTER);
        await app.sees('Until here');
      },
    ],
    [
      'A clip',
      async () => {
        await app.go(`/clips/${await sendClip('Heard')}`);
        await app.sees('Begin here');
      },
    ],
    [
      'Compare',
      async () => {
        await app.go(`/compare/${shot}`);
        await app.sees('What differs');
      },
    ],
    [
      'A guide',
      async () => {
        const answer = await fetch(`${appUrl()}/api/guides`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify({ title: 'Access', shots: [shot] }),
        });
        const { id } = (await answer.json()) as { id: string };
        await app.go(`/guides/${id}`);
        await app.named('Heading of the step');
      },
    ],
    [
      'Setup, folders',
      async () => {
        await app.go('/setup/folders');
        await app.named('Edit Access');
      },
    ],
    [
      'Setup, a folder',
      async () => {
        await app.go('/setup/folders');
        await app.click('Add a folder');
      },
    ],
    [
      'Setup, sending',
      async () => {
        await app.go('/setup/sending');
        await app.sees('Mail drop');
      },
    ],
    [
      'a page for paper',
      async () => {
        const id = await sendShot(await plainPng(80, 60, '#009E73'), 'Paper');
        await app.go(`/print/${id}`);
        await app.sees('Title and description');
      },
    ],
    [
      'Mark with Turn, and its corners',
      async () => {
        const id = await sendShot(await plainPng(80, 60, '#009E73'), 'Turned');
        await app.openShot(id);
        await app.keys('r');
        await app.click('Pull four corners square');
        await app.sees('Drag the corners');
      },
    ],
    [
      'Keep with the chart',
      async () => {
        const id = await sendShot(await plainPng(80, 60, '#009E73'), 'Chart');
        await app.go(`/shots/${id}/keep`);
        await app.click('JPEG');
        await app.until('the chart', () => app.has('svg[role="slider"]'));
      },
    ],
    [
      'Setup, taking',
      async () => {
        await app.go('/setup/taking');
        await app.named('Forget register.home.arpa');
      },
    ],
    [
      'Keys',
      async () => {
        await app.take();
        await app.keys('?');
        await app.named('Find a key');
      },
    ],
  ];
  test.each(views)(
    '%s',
    async (name, go) => {
      await inColours('light');
      await go();
      await app.atRest();
      expect(await violations(standards)).toEqual([]);
      expect(await browser.driver.executeScript(spacious)).toEqual([]);
      const { title, ...rest } = await browser.driver.executeScript<{ title: string }>(counted);
      expect(rest).toMatchObject({ headings: 1, groups: [] });
      const path = new URL(await browser.driver.getCurrentUrl()).pathname;
      expect([name, titles.get(title) ?? path]).toEqual([name, path]);
      titles.set(title, path);
      await inColours('dark');
      await app.atRest();
      expect(await violations(colours)).toEqual([]);
      expect(await browser.driver.executeScript(counted)).toMatchObject({ moving: 0 });
      // Nothing of our own is stopped by the policy that the page itself gives.
      expect(await browser.driver.executeScript('return window.refused')).toEqual([]);
    },
    60_000,
  );
});

test('the whole thread by keyboard alone: take a region, add a box, keep it', async () => {
  await app.take();
  await app.keys('3');
  await app.keys(Key.ENTER);
  await browser.driver.wait(until.elementLocated(By.css('[data-testid="still"]')), WAIT);
  await app.keys(Key.ARROW_RIGHT, Key.ENTER);
  const id = await app.marked();
  await app.keys('b');
  await tabTo('Picture. The Marks list');
  await app.keys(Key.ENTER, Key.ARROW_RIGHT);
  await app.stored();
  expect((await getShot(id)).document.marks[0]).toMatchObject({ kind: 'box', x: 631 });
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Keep in 1 place');
  await app.chord(Key.CONTROL, Key.ENTER);
  await app.sees('Kept in Access');
  const [name = ''] = readdirSync(folder);
  expect((await decode(readFileSync(join(folder, name)))).width).toBe(720);
}, 90_000);

/** Presses Tab until the element with this name has the focus, as a person would. */
async function tabTo(name: string): Promise<void> {
  for (let i = 0; i < 80; i += 1) {
    await app.keys(Key.TAB);
    const focused = await browser.driver.switchTo().activeElement();
    if (((await focused.getAttribute('aria-label')) ?? '').startsWith(name)) return;
  }
  throw new Error(`${name} is not reached by Tab`);
}

test('another host name and another origin get nothing of the pages', async () => {
  const answer = await fetch(`${appUrl()}/take`, { headers: { 'Sec-Fetch-Site': 'cross-site' } });
  expect(answer.status).toBe(403);
  const page = await fetch(`${appUrl()}/take`);
  expect(page.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
});
