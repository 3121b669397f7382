import { describe, expect, test } from '@jest/globals';
import { fitCircle, fitLine } from '../geometry/fit';
import type { Point } from '../geometry/point';
import { randomFrom } from '../random/random';
import { formsOf } from './trueUp';

// Gander, Golub, Strebel, Least-squares fitting of circles and ellipses, 1994.
test('the published circle is fitted: centre 4.7398, 2.9835, radius 4.7142', () => {
  const points = [
    [1, 7],
    [2, 6],
    [5, 8],
    [7, 7],
    [9, 5],
    [3, 7],
  ].map(([x = 0, y = 0]) => ({ x, y }));
  const fitted = fitCircle(points);
  expect(fitted?.form.centre.x).toBeCloseTo(4.7398, 4);
  expect(fitted?.form.centre.y).toBeCloseTo(2.9835, 4);
  expect(fitted?.form.radius).toBeCloseTo(4.7142, 4);
});

test('points on a line are no circle; the line is theirs', () => {
  const points = [0, 1, 2, 3].map((i) => ({ x: i * 10, y: 5 + i * 20 }));
  expect(fitCircle(points)).toBeNull();
  const { form, residual } = fitLine(points);
  expect(residual).toBeCloseTo(0, 9);
  expect(form.from.x).toBeCloseTo(0, 9);
  expect(form.to.y).toBeCloseTo(65, 9);
});

/** A course as a hand draws it: off by up to two pixels. */
function byHand(course: readonly [number, number][], seed = 1): Point[] {
  const next = randomFrom(seed);
  const points: Point[] = [];
  course.forEach(([x, y], i) => {
    const [fx, fy] = course[i - 1] ?? [x, y];
    const steps = i === 0 ? 1 : Math.ceil(Math.hypot(x - fx, y - fy) / 4);
    for (let k = 1; k <= steps; k += 1) {
      const t = k / steps;
      points.push({
        x: fx + (x - fx) * t + next() * 4 - 2,
        y: fy + (y - fy) * t + next() * 4 - 2,
      });
    }
  });
  return points;
}

const around = (rx: number, ry: number, from = 0, to = 2 * Math.PI): [number, number][] =>
  Array.from({ length: 40 }, (_, i) => {
    const angle = from + ((to - from) * i) / 39;
    return [200 + rx * Math.cos(angle), 150 + ry * Math.sin(angle)];
  });

describe('a stroke by hand is seen as what was meant', () => {
  const strokes: [string, [number, number][]][] = [
    [
      'line',
      [
        [20, 30],
        [220, 90],
      ],
    ],
    ['arc', around(120, 120, Math.PI * 1.1, Math.PI * 1.8)],
    ['oval', around(120, 60)],
    ['circle', around(80, 80)],
    [
      'box',
      [
        [50, 50],
        [250, 50],
        [250, 150],
        [50, 150],
        [50, 52],
      ],
    ],
    [
      'triangle',
      [
        [100, 40],
        [200, 200],
        [20, 190],
        [98, 42],
      ],
    ],
    [
      'arrow',
      [
        [20, 200],
        [220, 100],
        [185, 98],
        [220, 100],
        [200, 130],
      ],
    ],
    [
      'tick',
      [
        [40, 100],
        [70, 140],
        [140, 30],
      ],
    ],
  ];
  test.each(strokes)('%s', (meant, course) => {
    for (let seed = 1; seed <= 12; seed += 1) {
      const [best] = formsOf(byHand(course, seed));
      expect(best?.meant.form).toBe(meant);
      expect(best?.residual).toBeLessThan(5);
    }
  });

  test('a round stroke may be a circle or an oval; a long one is no circle', () => {
    const forms = (rx: number, ry: number) =>
      formsOf(byHand(around(rx, ry))).map(({ meant }) => meant.form);
    expect(forms(80, 84).slice(0, 2).sort()).toEqual(['circle', 'oval']);
    expect(forms(120, 60)).not.toContain('circle');
    const [best] = formsOf(byHand(around(80, 80)));
    if (best?.meant.form !== 'circle') throw new Error('no circle');
    const { width, height } = best.meant.rect;
    expect(width).toBe(height);
    expect(Math.abs(width - 160)).toBeLessThan(1.5);
  });

  test('a dot is nothing, and there is a runner-up to choose', () => {
    expect(formsOf([{ x: 5, y: 5 }])).toEqual([]);
    expect(formsOf(byHand(around(100, 90))).length).toBeGreaterThan(1);
  });

  test('the box is where it was drawn, whatever the hand did', () => {
    const [best] = formsOf(
      byHand([
        [50, 50],
        [250, 50],
        [250, 150],
        [50, 150],
        [50, 52],
      ]),
    );
    const meant = best?.meant;
    if (meant?.form !== 'box') throw new Error('no box');
    expect(Math.abs(meant.rect.x - 50)).toBeLessThan(1);
    expect(Math.abs(meant.rect.width - 200)).toBeLessThan(1.5);
  });
});
