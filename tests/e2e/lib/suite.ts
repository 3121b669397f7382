import { afterAll, beforeAll } from '@jest/globals';
import { firstWay } from '@/core/contracts/way';
import { App, setWay } from './app';
import { openBrowser, type Browser } from './browser';
import { Marking } from './marking';

/** What the tests of a file drive; there from `inOneBrowser` on. */
export let browser: Browser;
export let app: App;
export let marking: Marking;

/** One browser for all tests of a file, taking as at first. */
export function inOneBrowser(begin?: () => Promise<void>): void {
  beforeAll(async () => {
    browser = await openBrowser();
    app = new App(browser.driver);
    marking = new Marking(app);
    await setWay(firstWay);
    await begin?.();
  }, 120_000);
  afterAll(() => browser.close());
}
