import { describe, expect, test } from '@jest/globals';
import { distanceToPolyline } from '../../geometry/point';
import { pen } from './kind';
import { penSchema, type PenMark } from './schema';
import { MOST_STREWN, strewn, strewReach } from './strew';

const stroke = (points: [number, number, number][], thickness = 6, id = 's'): PenMark =>
  penSchema.parse({
    ...{ id, kind: 'pen', tip: 'strew', strewn: 'bolt', points, colour: '#D55E00', thickness },
  });
const level = stroke([
  [0, 50, 0.5],
  [100, 50, 0.5],
  [400, 50, 0.5],
]);

describe('what is strewn', () => {
  test('lies near the stroke, at even distances, each turned and sized on its own', () => {
    const placed = strewn(level);
    // 400 px, a stamp every 0.9 × 18 px.
    expect(placed).toHaveLength(25);
    for (const { x, y, side } of placed) {
      const far = distanceToPolyline({ x, y }, [
        { x: 0, y: 50 },
        { x: 400, y: 50 },
      ]);
      expect(far + (side / 2) * Math.SQRT2).toBeLessThan(strewReach(6));
    }
    expect(new Set(placed.map((one) => one.angle)).size).toBe(25);
    expect(new Set(placed.map((one) => one.side)).size).toBe(25);
  });

  test('is the same each time, and another for another mark', () => {
    expect(strewn(level)).toEqual(strewn(structuredClone(level)));
    expect(strewn({ ...level, id: 't' })).not.toEqual(strewn(level));
  });

  test('moves with its mark', () => {
    const moved = strewn(pen.move(level, { x: 30, y: -20 }));
    strewn(level).forEach(({ x, y }, i) => {
      expect(moved[i]?.x).toBeCloseTo(x + 30, 6);
      expect(moved[i]?.y).toBeCloseTo(y - 20, 6);
    });
  });

  test('a tap leaves one; the heaviest hand stays within the bounds', () => {
    expect(strewn(stroke([[10, 10, 1]]))).toHaveLength(1);
    const heavy = stroke(
      Array.from({ length: 50 }, (_, i) => [i * 9, 40, 1]),
      60,
    );
    for (const { x, y, side } of strewn(heavy)) {
      const reach = (side / 2) * Math.SQRT2;
      const { x: left, y: top, width, height } = pen.bounds(heavy, {} as never);
      expect(x - reach).toBeGreaterThanOrEqual(left);
      expect(y - reach).toBeGreaterThanOrEqual(top);
      expect(x + reach).toBeLessThanOrEqual(left + width);
      expect(y + reach).toBeLessThanOrEqual(top + height);
    }
  });

  test('a stroke for a hundred thousand strews no more than can be painted', () => {
    const endless = stroke(
      Array.from({ length: 10_000 }, (_, i) => [i % 2 ? 8_000 : 0, i % 4_000, 0.5]),
      1,
    );
    const placed = strewn(endless);
    expect(placed.length).toBeLessThanOrEqual(MOST_STREWN);
    expect(placed.length).toBeGreaterThan(MOST_STREWN * 0.9);
    // To the very end of the stroke.
    expect(Math.max(...placed.map(({ y }) => y))).toBeGreaterThan(3_900);
  });
});

test('only what strews has something to strew', () => {
  const felt = pen.restyle(level, { tip: 'felt' });
  expect(felt).not.toHaveProperty('strewn');
  expect(pen.restyle(felt, { strewn: 'heart' })).not.toHaveProperty('strewn');
  expect(pen.restyle(felt, { tip: 'strew' })).toMatchObject({ tip: 'strew', strewn: 'star' });
  expect(pen.restyle(level, { strewn: 'heart' })).toMatchObject({ strewn: 'heart' });
});
