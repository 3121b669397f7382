import { expect, test } from '@jest/globals';
import { keptStretches, UNCUT, type Cuts } from './cuts';
import { sampleOf, sizeBySample } from './sample';

const timesOf = (count: number, rate = 10): number[] =>
  Array.from({ length: count }, (_, i) => i / rate);

test('short stretches all over what is kept, none across a cut; all of what is short', () => {
  expect(sampleOf(UNCUT, timesOf(60))).toBeNull();
  const times = timesOf(300);
  const cuts: Cuts = { away: [{ from: 100, to: 154 }], speeds: [{ from: 0, to: 50, speed: 2 }] };
  const sample = sampleOf(cuts, times);
  if (!sample) throw new Error('It is long.');
  const stretches = keptStretches(sample.stretches, 300);
  expect(stretches).toHaveLength(5);
  expect(sample.stretches.speeds).toEqual(cuts.speeds);
  for (const { from, to } of stretches) {
    expect(to - from).toBeGreaterThan(1);
    expect(to - from).toBeLessThan(10);
    expect(to <= 100 || from >= 154).toBe(true);
  }
  expect(stretches[0]?.from).toBeLessThan(60);
  expect(stretches.at(-1)?.from).toBeGreaterThan(250);
  expect(keptStretches(sample.pictures, 300)).toEqual(
    stretches.map(({ from }) => ({ from, to: from + 1 })),
  );
});

test('where every picture takes as much and every change as much, it is told exactly', () => {
  const times = timesOf(400);
  const sample = sampleOf(UNCUT, times);
  if (!sample) throw new Error('It is long.');
  const [picture, change] = [5_000, 120];
  const counted = keptStretches(sample.stretches, 400).reduce(
    (n, { from, to }) => n + to - from,
    0,
  );
  const bytes = { stretches: 5 * picture + (counted - 5) * change, pictures: 5 * picture };
  const all = picture + 400 * change;
  expect(Math.abs(sizeBySample(sample, bytes, UNCUT, times) - all)).toBeLessThan(2 * change);
});
