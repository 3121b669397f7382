import { describe, expect, test } from '@jest/globals';
import {
  beginAt,
  bringBack,
  cutAway,
  endAt,
  filmEnds,
  firstKept,
  keptStretches,
  lastKept,
  pictureAt,
  stepFrom,
  UNCUT,
  type Cuts,
} from './cuts';
import { randomFrom } from '../random/random';

/** Which pictures of ten stay, as a row of signs. */
const row = (cuts: Cuts, count = 10): string => {
  const kept = keptStretches(cuts, count);
  return Array.from({ length: count }, (_, i) =>
    kept.some(({ from, to }) => i >= from && i < to) ? 'x' : '.',
  ).join('');
};

describe('cuts', () => {
  test('what is taken away is gone, and nothing else', () => {
    const once = cutAway(UNCUT, { from: 2, to: 4 }, 10);
    expect(row(once)).toBe('xx..xxxxxx');
    expect(row(cutAway(once, { from: 3, to: 7 }, 10))).toBe('xx.....xxx');
    expect(row(cutAway(once, { from: 8, to: 99 }, 10))).toBe('xx..xxxx..');
    expect(row(bringBack(once, { from: 0, to: 3 }, 10))).toBe('xxx.xxxxxx');
  });

  test('something always stays', () => {
    expect(cutAway(UNCUT, { from: 0, to: 10 }, 10)).toBe(UNCUT);
    const most = cutAway(UNCUT, { from: 1, to: 10 }, 10);
    expect(row(cutAway(most, { from: 0, to: 1 }, 10))).toBe('x.........');
  });

  test('begin and end go to and fro, cuts in the middle stay', () => {
    const cut = cutAway(UNCUT, { from: 5, to: 6 }, 10);
    const begun = beginAt(cut, 2, 10);
    expect(row(begun)).toBe('..xxx.xxxx');
    expect(row(beginAt(begun, 1, 10))).toBe('.xxxx.xxxx');
    expect(row(endAt(begun, 7, 10))).toBe('..xxx.xx..');
    expect(row(endAt(endAt(begun, 7, 10), 8, 10))).toBe('..xxx.xxx.');
    expect(row(beginAt(begun, 5, 10))).toBe('......xxxx');
  });

  test('whatever is cut and brought back is what a list of signs says', () => {
    const random = randomFrom(7);
    const number = (most: number) => Math.floor(random() * (most + 1));
    for (let round = 0; round < 200; round += 1) {
      let cuts: Cuts = UNCUT;
      let model = Array.from({ length: 30 }, () => true);
      for (let step = 0; step < 6; step += 1) {
        const [from, to] = [number(29), number(30)];
        const cutting = random() < 0.6;
        const next = model.map((kept, i) => (i >= from && i < to ? !cutting : kept));
        if (next.some(Boolean)) model = next;
        cuts = cutting ? cutAway(cuts, { from, to }, 30) : bringBack(cuts, { from, to }, 30);
        expect(row(cuts, 30)).toBe(model.map((kept) => (kept ? 'x' : '.')).join(''));
      }
      expect(firstKept(cuts, 30)).toBe(model.indexOf(true));
      expect(lastKept(cuts, 30)).toBe(model.lastIndexOf(true));
    }
  });

  test('going on leaps over what is gone, and stays at the ends', () => {
    const cuts = cutAway(beginAt(UNCUT, 1, 10), { from: 4, to: 6 }, 10);
    expect(stepFrom(cuts, 3, 1, 10)).toBe(6);
    expect(stepFrom(cuts, 6, -1, 10)).toBe(3);
    expect(stepFrom(cuts, 4, 1, 10)).toBe(6);
    expect(stepFrom(cuts, 9, 1, 10)).toBe(9);
    expect(stepFrom(cuts, 1, -1, 10)).toBe(1);
  });
});

describe('times', () => {
  const times = [0, 0.1, 0.2, 0.4, 0.5];

  test('a picture is seen until the next one comes', () => {
    expect([-1, 0, 0.09, 0.1, 0.39, 0.4, 9].map((at) => pictureAt(times, at))).toEqual([
      0, 0, 0, 1, 2, 3, 4,
    ]);
  });

  test('how long it is', () => {
    expect(filmEnds(times)).toBeCloseTo(0.6);
    expect(filmEnds([0])).toBe(0);
  });
});
