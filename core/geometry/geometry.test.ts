import { describe, expect, test } from '@jest/globals';
import { bentBounds, control, cutBent, distanceToBent, middle, pointAt, sample } from './bend';
import { distanceToPolyline, distanceToSegment, snapDirection } from './point';
import { contains, fitScale, moveInside, outerPixels, union } from './rect';
import { gripPoint, pullGrip } from './resize';

const line = { from: { x: 0, y: 0 }, to: { x: 100, y: 0 }, bend: { x: 0, y: 40 } };

describe('points and lines', () => {
  test('distance to a segment counts its ends', () => {
    expect(distanceToSegment({ x: 5, y: 3 }, { x: 0, y: 0 }, { x: 10, y: 0 })).toBe(3);
    expect(distanceToSegment({ x: 13, y: 4 }, { x: 0, y: 0 }, { x: 10, y: 0 })).toBe(5);
    expect(distanceToSegment({ x: 3, y: 4 }, { x: 0, y: 0 }, { x: 0, y: 0 })).toBe(5);
  });

  test('distance to a polyline is to its nearest part', () => {
    const l = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 10, y: 10 },
    ];
    expect(distanceToPolyline({ x: 12, y: 8 }, l)).toBe(2);
    expect(distanceToPolyline({ x: 0, y: 0 }, [])).toBe(Infinity);
  });

  test('a direction snaps to whole steps and keeps its length', () => {
    const p = snapDirection({ x: 0, y: 0 }, { x: 100, y: 8 }, 15);
    expect(p.y).toBeCloseTo(0);
    expect(p.x).toBeCloseTo(Math.hypot(100, 8));
  });
});

describe('bent lines', () => {
  test('the curve goes through its bend', () => {
    expect(middle(line)).toEqual({ x: 50, y: 40 });
    expect(pointAt(line, 0.5)).toEqual({ x: 50, y: 40 });
    expect(control(line)).toEqual({ x: 50, y: 80 });
  });

  test('bounds hold every sampled point, and touch the highest', () => {
    const b = bentBounds(line);
    for (const p of sample(line, 200)) {
      expect(p.x).toBeGreaterThanOrEqual(b.x);
      expect(p.y).toBeLessThanOrEqual(b.y + b.height + 1e-9);
    }
    expect(b.height).toBeCloseTo(40);
  });

  test.each([0.25, 0.5, 0.8])('cut at %d, the part runs along the whole', (t) => {
    const before = cutBent(line, t, 'before');
    const after = cutBent(line, t, 'after');
    expect(pointAt(before, 0.5).x).toBeCloseTo(pointAt(line, t / 2).x);
    expect(pointAt(before, 0.5).y).toBeCloseTo(pointAt(line, t / 2).y);
    expect(pointAt(after, 0.5).y).toBeCloseTo(pointAt(line, (1 + t) / 2).y);
  });

  test('distance to a curve is to the curve, not to its chord', () => {
    expect(distanceToBent({ x: 50, y: 40 }, line)).toBeLessThan(0.5);
    expect(distanceToBent({ x: 50, y: 0 }, line)).toBeGreaterThan(20);
  });
});

describe('rectangles', () => {
  test('are half open', () => {
    const r = { x: 0, y: 0, width: 10, height: 10 };
    expect(contains(r, { x: 0, y: 0 })).toBe(true);
    expect(contains(r, { x: 10, y: 5 })).toBe(false);
  });

  test('unite, round outward and move inside', () => {
    expect(
      union([
        { x: 1, y: 2, width: 3, height: 4 },
        { x: -1, y: 5, width: 1, height: 9 },
      ]),
    ).toEqual({ x: -1, y: 2, width: 5, height: 12 });
    expect(outerPixels({ x: 0.4, y: 1.6, width: 1, height: 1 })).toEqual({
      x: 0,
      y: 1,
      width: 2,
      height: 2,
    });
    expect(
      moveInside({ x: 95, y: -5, width: 10, height: 10 }, { x: 0, y: 0, width: 100, height: 100 }),
    ).toEqual({ x: 90, y: 0, width: 10, height: 10 });
    expect(fitScale({ width: 200, height: 100 }, { width: 100, height: 100 })).toBe(0.5);
  });

  test('a grip pulled across turns the rectangle over', () => {
    const r = { x: 10, y: 10, width: 20, height: 20 };
    expect(pullGrip(r, 'se', { x: 0, y: 5 })).toEqual({ x: 0, y: 5, width: 10, height: 5 });
    expect(pullGrip(r, 'e', { x: 50, y: 999 })).toEqual({ x: 10, y: 10, width: 40, height: 20 });
    expect(pullGrip(r, 'se', { x: 50, y: 31 }, true)).toEqual({
      x: 10,
      y: 10,
      width: 40,
      height: 40,
    });
    expect(gripPoint(r, 'n')).toEqual({ x: 20, y: 10 });
  });
});
