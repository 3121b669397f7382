import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cutAway, keptStretches, SPEEDS, UNCUT, type Cuts } from './cuts';
import { keptPictures, keptSeconds, playedStretches, speedAt, withSpeed } from './played';

test('how much of it stays', () => {
  const times = [0, 0.1, 0.2, 0.4, 0.5];
  expect(keptSeconds(UNCUT, times)).toBeCloseTo(0.6);
  expect(keptSeconds({ away: [{ from: 1, to: 3 }] }, times)).toBeCloseTo(0.3);
});

describe('speed', () => {
  const speeds = [{ from: 4, to: 8, speed: 2 as const }];
  /** Ten a second. */
  const times = Array.from({ length: 12 }, (_, i) => i / 10);

  test('a stretch twice as fast: every second picture, in half the time, all else as it was', () => {
    expect(playedStretches({ away: [], speeds }, 12)).toEqual([
      { from: 0, to: 4, speed: 1 },
      { from: 4, to: 8, speed: 2 },
      { from: 8, to: 12, speed: 1 },
    ]);
    const kept = keptPictures({ away: [], speeds }, times);
    expect(kept.map(({ picture }) => picture)).toEqual([0, 1, 2, 3, 4, 6, 8, 9, 10, 11]);
    expect(kept.map(({ at }) => at)).toEqual([0, 100, 200, 300, 400, 500, 600, 700, 800, 900]);
    expect(keptSeconds({ away: [], speeds }, times)).toBeCloseTo(1);
  });

  test('slower, each picture is seen longer; what is cut away is not played at all', () => {
    const cuts: Cuts = { away: [{ from: 5, to: 20 }], speeds: [{ from: 4, to: 8, speed: 0.25 }] };
    expect(keptPictures(cuts, times).map(({ picture, lasts }) => [picture, lasts])).toEqual([
      ...[0, 1, 2, 3].map((picture) => [picture, 100]),
      [4, 400],
    ]);
    expect(cutAway({ away: [], speeds }, { from: 0, to: 2 }, 12)).toEqual({
      ...{ away: [{ from: 0, to: 2 }], speeds },
    });
  });

  test('what is given to a stretch replaces what its parts had, and its own speed is none', () => {
    const cuts = { away: [], speeds };
    expect(withSpeed(cuts, { from: 6, to: 10 }, 4).speeds).toEqual([
      { from: 4, to: 6, speed: 2 },
      { from: 6, to: 10, speed: 4 },
    ]);
    expect(withSpeed(cuts, { from: 5, to: 6 }, 1).speeds).toEqual([
      { from: 4, to: 5, speed: 2 },
      { from: 6, to: 8, speed: 2 },
    ]);
    expect(withSpeed(cuts, { from: 0, to: 12 }, 1)).toEqual(UNCUT);
    expect([3, 4, 7, 8].map((picture) => speedAt(cuts, picture))).toEqual([1, 2, 2, 1]);
  });

  test('whatever is asked for, stretches follow each other and every picture has its last speed', () => {
    const asked = fc.array(
      fc.tuple(fc.nat(29), fc.integer({ min: 1, max: 10 }), fc.constantFrom(...SPEEDS)),
      { maxLength: 8 },
    );
    fc.assert(
      fc.property(asked, (all) => {
        const model = Array.from({ length: 30 }, () => 1);
        let cuts: Cuts = UNCUT;
        for (const [from, length, speed] of all) {
          const to = Math.min(30, from + length);
          model.fill(speed, from, to);
          cuts = withSpeed(cuts, { from, to }, speed);
        }
        const played = playedStretches(cuts, 30);
        expect(
          played.flatMap(({ from, to, speed }) => Array.from({ length: to - from }, () => speed)),
        ).toEqual(model);
      }),
    );
  });
});

test('kept pictures come one after the other, each for some time, in all as long as what is kept', () => {
  // The second and third within a thousandth of a second.
  const times = [0, 0.1, 0.1002, 0.3, 0.4];
  expect(keptPictures(UNCUT, times)).toEqual([
    { picture: 0, at: 0, lasts: 100 },
    { picture: 1, at: 100, lasts: 1 },
    { picture: 2, at: 101, lasts: 199 },
    { picture: 3, at: 300, lasts: 100 },
    { picture: 4, at: 400, lasts: 100 },
  ]);
  expect(keptPictures({ away: [{ from: 0, to: 3 }] }, times)).toEqual([
    { picture: 3, at: 0, lasts: 100 },
    { picture: 4, at: 100, lasts: 100 },
  ]);
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 200_000 }), { minLength: 1, maxLength: 30 }),
      fc.array(fc.tuple(fc.nat(30), fc.nat(30)), { maxLength: 4 }),
      (steps, some) => {
        let at = 0;
        const moments = steps.map((step) => (at += step) / 1e6);
        const cuts = some.reduce<Cuts>(
          (so, [from, to]) => cutAway(so, { from, to }, moments.length),
          UNCUT,
        );
        const kept = keptPictures(cuts, moments);
        expect(kept.map(({ picture }) => picture)).toEqual(
          keptStretches(cuts, moments.length).flatMap(({ from, to }) =>
            Array.from({ length: to - from }, (_, i) => from + i),
          ),
        );
        kept.forEach(({ at: begun, lasts }, i) => {
          expect(lasts).toBeGreaterThan(0);
          expect(kept[i + 1]?.at ?? begun + lasts).toBe(begun + lasts);
        });
      },
    ),
  );
});
