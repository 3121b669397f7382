import { expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key } from 'selenium-webdriver';
import { clipSchema } from '@/core/contracts/clip';
import { copiesSchema } from '@/core/contracts/folder';
import { film } from '@/server/tests/clipFilms';
import { listShots, read } from './lib/app';
import { showsPicture } from './lib/clip';
import { heldBack, newFolder } from './lib/keeping';
import { app, browser, inOneBrowser } from './lib/suite';

inOneBrowser();

const files = mkdtempSync(join(tmpdir(), 'rezzik-films-'));
const made = (name: string, bytes: Buffer): string => {
  const path = join(files, name);
  writeFileSync(path, bytes);
  return path;
};
const open = async (...paths: string[]): Promise<void> => {
  await app.take();
  const input = await browser.driver.findElement(By.css('input[type="file"]'));
  await input.sendKeys(paths.join('\n'));
};

test('a film is opened as a clip, to be cut, marked and kept as every other', async () => {
  await open(made('Frost alarm.mp4', film(30, 'uneven')));
  await app.sees('Begin here');
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  const clip = clipSchema.parse(await (await read(`/api/clips/${id}`)).json());
  expect(clip).toMatchObject({
    title: 'Frost alarm',
    provenance: { source: 'opened', fileName: 'Frost alarm.mp4', frames: 30 },
  });
  await showsPicture(0);
  const where = await browser.driver.findElement(By.css('section[aria-label="Where from"]'));
  expect(await where.getText()).toContain('Frost alarm.mp4');
}, 60_000);

test('of one with fine colours, these are kept where that is chosen, however soon that is asked', async () => {
  await newFolder('Films');
  await open(made('Fine.mkv', film(30, 'fine')));
  // The list of folders comes after the keys were pressed.
  const folders = await heldBack('/api/folders');
  await app.sees('As recorded');
  await app.click('As recorded');
  await app.sees('fine colours, not in every player');
  await app.chord(Key.CONTROL, Key.ENTER);
  await folders.comes();
  const keep = await browser.driver.findElement(By.css('section[aria-label="Keep"]'));
  await app.until('it is kept', async () => (await keep.getText()).includes('Kept'));
  const id = (await browser.driver.getCurrentUrl()).slice(-36);
  const answer = await read(`/api/shots/${id}/copies`);
  const [copy] = copiesSchema.parse(await answer.json()).copies;
  const told = execFileSync('ffprobe', [
    ...['-loglevel', 'error', '-select_streams', 'v:0', '-of', 'csv=p=0', '-count_packets'],
    ...['-show_entries', 'stream=pix_fmt,nb_read_packets', copy?.path ?? ''],
  ]);
  expect(told.toString().trim()).toBe('yuv444p,30');
}, 60_000);

test('several at once, pictures among them, are stored; what cannot be read is told, and nothing is left of it', async () => {
  const before = (await listShots()).shots.length;
  await open(
    made('Beds.mkv', film(20)),
    made('Broken.mp4', Buffer.alloc(5_000, 7)),
    made('Old.avi', Buffer.alloc(500, 1)),
  );
  await app.sees('Films are opened from WebM, MP4 and Matroska files.');
  await app.until('both are told', async () => {
    const trail = await browser.driver.executeScript<string>(
      'return localStorage.getItem("rezzik-trail")',
    );
    return trail.includes('VP8, VP9, AV1 or H.264');
  });
  await app.until('the one that can is there', async () => {
    const { shots } = await listShots();
    return shots.length === before + 1 && shots[0]?.title === 'Beds';
  });
}, 60_000);
