import { describe, expect, test } from '@jest/globals';
import {
  dragTo,
  gripAt,
  nothingChosen,
  nudge,
  press,
  release,
  typeNumber,
  type Selection,
} from './selection';

const empty = nothingChosen({ width: 200, height: 100 });

const drawn = (ax: number, ay: number, bx: number, by: number): Selection =>
  release(dragTo(press(empty, { x: ax, y: ay }, 5), { x: bx, y: by }));

describe('drawing', () => {
  test('gives whole pixels, from any corner', () => {
    expect(drawn(10.4, 10.2, 60.6, 40.8).region).toEqual({ x: 10, y: 10, width: 51, height: 31 });
    expect(drawn(60, 40, 10, 10).region).toEqual({ x: 10, y: 10, width: 50, height: 30 });
  });

  test('is cut to the frame', () => {
    expect(drawn(150, 50, 500, 500).region).toEqual({ x: 150, y: 50, width: 50, height: 50 });
    expect(drawn(-50, -50, 20, 20).region).toEqual({ x: 0, y: 0, width: 20, height: 20 });
  });

  test('a click without a drag chooses nothing', () => {
    expect(release(press(empty, { x: 5, y: 5 }, 5)).region).toBeNull();
  });

  test('with Shift it is a square', () => {
    expect(
      dragTo(press(empty, { x: 0, y: 0 }, 5), { x: 30, y: 20 }, { ratio: true }).region,
    ).toEqual({
      x: 0,
      y: 0,
      width: 30,
      height: 30,
    });
  });
});

describe('adjusting', () => {
  const s = drawn(20, 20, 60, 60);

  test('a press on a side pulls it, one inside moves, one outside draws anew', () => {
    expect(press(s, { x: 61, y: 33 }, 5).drag).toMatchObject({ kind: 'pull', grip: 'e' });
    expect(press(s, { x: 60, y: 61 }, 5).drag).toMatchObject({ kind: 'pull', grip: 'se' });
    expect(press(s, { x: 40, y: 45 }, 5).drag).toMatchObject({ kind: 'move' });
    expect(press(s, { x: 100, y: 90 }, 5).drag).toMatchObject({ kind: 'draw' });
    expect(gripAt(empty, { x: 0, y: 0 }, 5)).toBeNull();
  });

  test('moving stops at the frame', () => {
    const moved = dragTo(press(s, { x: 40, y: 40 }, 5), { x: 400, y: 45 });
    expect(moved.region).toEqual({ x: 160, y: 25, width: 40, height: 40 });
  });

  test('arrow keys move by 1 or 10, and with Alt change the size', () => {
    expect(nudge(s, 'ArrowRight', 1, false).region?.x).toBe(21);
    expect(nudge(s, 'ArrowUp', 10, false).region?.y).toBe(10);
    expect(nudge(s, 'ArrowDown', 10, true).region?.height).toBe(50);
    expect(nudge(s, 'ArrowLeft', 100, true).region?.width).toBe(1);
  });

  test('keys alone make a region', () => {
    expect(nudge(empty, 'ArrowLeft', 1, false).region).toEqual({
      x: 50,
      y: 25,
      width: 100,
      height: 50,
    });
  });

  test('typed numbers are cut to the frame; what is no number changes nothing', () => {
    expect(typeNumber(s, 'width', 1e9).region).toEqual({ x: 20, y: 20, width: 180, height: 40 });
    expect(typeNumber(s, 'x', -7).region?.x).toBe(0);
    expect(typeNumber(s, 'height', 0).region?.height).toBe(1);
    expect(typeNumber(s, 'x', NaN)).toBe(s);
  });
});
