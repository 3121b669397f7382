import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { z } from 'zod';
import { appUrl, openBrowser } from './lib/browser';

/** Numbers of the processes whose command line names a folder. */
const naming = (folder: string): string[] =>
  readdirSync('/proc').filter((pid) => {
    if (!/^\d+$/.test(pid)) return false;
    try {
      return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(folder);
    } catch {
      // It ended meanwhile.
      return false;
    }
  });

test('a browser that a test is done with is gone, and computes nothing beside the next one', async () => {
  const browser = await openBrowser();
  const { userDataDir } = z
    .object({ userDataDir: z.string().min(1) })
    .parse((await browser.driver.getCapabilities()).get('chrome'));
  await browser.driver.get(appUrl());
  expect(naming(userDataDir).length).toBeGreaterThan(0);
  await browser.close();
  const late = Date.now() + 10_000;
  while (naming(userDataDir).length > 0 && Date.now() < late)
    await new Promise((resolve) => setTimeout(resolve, 50));
  expect(naming(userDataDir)).toEqual([]);
}, 60_000);
