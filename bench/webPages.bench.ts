import { test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { pageSchema } from '@/core/contracts/page';
import { practiceSite } from '@/server/pages/practice/site';
import { takePage } from '@/server/pages/takePage';
import { median, ms, report, time } from './measure';

const run = promisify(execFile);
const ROUNDS = 5;

/** The browser by itself, told how high the page is: it scrolls nothing, waits for nothing, reads nothing. */
async function bare(address: string, { width, height }: { width: number; height: number }) {
  const folder = mkdtempSync(join(tmpdir(), 'rezzik-bare-'));
  await run('chromium-headless-shell', [
    ...['--no-sandbox', '--disable-quic', '--no-first-run', '--disable-background-networking'],
    ...[`--user-data-dir=${folder}`, `--window-size=${width},${height}`, '--hide-scrollbars'],
    ...[`--screenshot=${join(folder, 'page.png')}`, address],
  ]);
  await sharp(join(folder, 'page.png')).metadata();
  rmSync(folder, { recursive: true, force: true });
}

test('a web page by its address, against the bare browser', async () => {
  const site = await practiceSite();
  const reach = { hosts: new Set([new URL(site).host]), doors: [] };
  const { signal } = new AbortController();
  for (const path of ['', 'seeds']) {
    const page = pageSchema.parse({ address: `${site}${path}` });
    const take = () => takePage(page, reach, () => undefined, signal);
    const { width, height } = await sharp((await take()).bytes).metadata();
    const ours: number[] = [];
    const theirs: number[] = [];
    for (let round = 0; round < ROUNDS; round += 1) {
      ours.push(await time(take));
      theirs.push(await time(() => bare(page.address, { width, height })));
    }
    report(`A page of ${width} × ${height} by its address, median`, ms(median(ours)));
    const ratio = (median(ours) / median(theirs)).toFixed(2);
    report('… against the bare browser', `${ratio} ×`, ms(median(theirs)));
  }
}, 240_000);
