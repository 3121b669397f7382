import { expect, test } from '@jest/globals';
import { takenOver } from './takenOver';

const keys = new Set([0, 30, 60]);

test('what is whole is taken over, and so is what begins with a key picture', () => {
  expect(takenOver({ away: [] }, 75, keys)).toEqual([{ from: 0, to: 75, asRecorded: true }]);
  expect(takenOver({ away: [{ from: 0, to: 30 }] }, 75, keys)).toEqual([
    { from: 30, to: 75, asRecorded: true },
  ]);
});

test('of each stretch what comes before its first key picture is packed anew', () => {
  const away = [
    { from: 0, to: 12 },
    { from: 40, to: 45 },
    { from: 70, to: 72 },
  ];
  expect(takenOver({ away }, 75, keys)).toEqual([
    { from: 12, to: 30, asRecorded: false },
    { from: 30, to: 40, asRecorded: true },
    { from: 45, to: 60, asRecorded: false },
    { from: 60, to: 70, asRecorded: true },
    { from: 72, to: 75, asRecorded: false },
  ]);
});

test('without a key picture, or where pictures are left out, all is packed anew', () => {
  const away = [
    { from: 0, to: 31 },
    { from: 59, to: 75 },
  ];
  expect(takenOver({ away }, 75, keys)).toBeNull();
  const faster = { away: [], speeds: [{ from: 5, to: 10, speed: 2 as const }] };
  expect(takenOver(faster, 75, keys)).toBeNull();
  const slower = { away: [], speeds: [{ from: 30, to: 40, speed: 0.5 as const }] };
  expect(takenOver(slower, 75, keys)).toEqual([
    { from: 0, to: 30, asRecorded: true },
    { from: 30, to: 40, asRecorded: true },
    { from: 40, to: 60, asRecorded: false },
    { from: 60, to: 75, asRecorded: true },
  ]);
});
