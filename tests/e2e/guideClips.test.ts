import { expect, test } from '@jest/globals';
import { By } from 'selenium-webdriver';
import { storedGuideSchema } from '@/core/contracts/guide';
import { read } from './lib/app';
import { appUrl } from './lib/browser';
import { sendClip } from './lib/clip';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();

test('a clip in a guide is told to move, and plays where the guide is looked at', async () => {
  const shots = [await sendClip('Bed moved')];
  const answer = await fetch(`${appUrl()}/api/guides`, {
    ...{ method: 'POST', headers: { 'Content-Type': 'application/json' } },
    body: JSON.stringify({ title: 'Moving beds', shots }),
  });
  const { id } = storedGuideSchema.parse(await answer.json());
  await app.go(`/guides/${id}`);
  await app.sees('Open the clip');
  const choose = async (words: string) => {
    const option = `//label[starts-with(normalize-space(.), "Clips")]//option[.="${words}"]`;
    await browser.driver.findElement(By.xpath(option)).click();
  };
  await choose('first picture, with their link');
  await app.sees('It plays on this computer');
  await app.sees('Without a link that plays');
  await choose('moving');
  await app.sees('They play in HTML');
  await app.stored();
  await app.click('Look at it');
  const page = By.css('iframe[title="The guide"]');
  await app.until('the page', async () => (await browser.driver.findElements(page)).length > 0);
  await browser.driver.switchTo().frame(await browser.driver.findElement(page));
  const seconds = () =>
    browser.driver.executeScript<number | null>(
      'return document.querySelector("video")?.duration ?? null;',
    );
  await browser.driver.wait(async () => (await seconds()) !== null, 20_000);
  expect(await seconds()).toBeCloseTo(2, 1);
  await browser.driver.switchTo().defaultContent();
  // The name of a button lies within the dialog, which cuts off what does not.
  const close = await browser.driver.findElement(By.css('[data-modal] button[aria-label="Close"]'));
  await browser.driver.actions().move({ origin: close }).perform();
  const above = () =>
    browser.driver.executeScript<number | null>(
      `const name = document.querySelector('[data-radix-popper-content-wrapper]');
       const dialog = document.querySelector('[data-modal]');
       return name && name.getBoundingClientRect().top - dialog.getBoundingClientRect().top;`,
    );
  await app.until('its name is shown', async () => (await above()) !== null);
  await app.until('all of it is seen', async () => Number(await above()) >= 0);
  const stored = storedGuideSchema.parse(await (await read(`/api/guides/${id}`)).json());
  expect(stored.guide.clips).toBe('moving');
}, 90_000);
