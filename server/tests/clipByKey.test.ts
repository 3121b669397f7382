import { expect, test } from '@jest/globals';
import { recordedNow } from '../clips/display';
import { lookedThrough } from './clipLib';
import { covered, drag, onOneScreen, routine, taken, told, until, xdo } from './keyScreen';

onOneScreen();

const isPast = (seconds: number) =>
  until(`${seconds} s`, () => (recordedNow()?.seconds ?? 0) > seconds);

test('one key begins a clip of the screen, and the same key ends it: no page is needed', async () => {
  await routine('mod+f8', { kind: 'clip', pressed: ['keys'] });
  await xdo('key', 'ctrl+F8');
  await until('it is told', () => told.find((one) => one.recording));
  await isPast(1);
  await xdo('key', 'b');
  await isPast(2);
  await xdo('key', 'ctrl+F8');
  const { shot = '', lines } = await taken();
  expect(lines).toEqual([expect.stringMatching(/^“Clip \d+”, 0:0[1-9]/), 'On the Shelf']);
  const clip = await lookedThrough(shot);
  expect(clip).toMatchObject({ width: 1280, height: 800, document: { marks: [{ text: 'b' }] } });
  expect(recordedNow()).toBeNull();
}, 90_000);

test('a region is chosen on the screen first; Esc there begins nothing', async () => {
  await routine('f7', { kind: 'clip', records: 'region', atOnce: true });
  await xdo('key', 'F7');
  await covered();
  await xdo('key', 'Escape');
  await covered(false);
  expect(recordedNow()).toBeNull();
  await xdo('key', 'F7');
  await covered();
  await drag([60, 100], [260, 220]);
  await isPast(1);
  await xdo('key', 'F7');
  const { shot = '' } = await taken();
  const { width, document } = await lookedThrough(shot);
  // The whole display is there, too.
  expect(width).toBe(1280);
  expect(document.view.crop).toEqual({ x: 60, y: 100, width: 200, height: 120 });
}, 90_000);

test('pressed twice at once, it is begun and ended, or said why not: never two at a time', async () => {
  await routine('f6', { kind: 'clip' });
  await xdo('key', 'F6', 'key', 'F6');
  const { lines, shot } = await until('what came of it', () =>
    told.find((one) => one.lines.length > 0),
  );
  expect(lines.join()).toMatch(/On the Shelf|no clip|Nothing/);
  await until('it is over', () => recordedNow() === null);
  if (shot) await lookedThrough(shot);
}, 90_000);
