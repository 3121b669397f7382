import { expect, test } from '@jest/globals';
import {
  LEAST_SCALE,
  MOST_SCALE,
  pan,
  resolveCamera,
  toFrame,
  toScreen,
  zoomAt,
  zoomTo,
} from './camera';

const space = { width: 840, height: 640 };
const view = { x: 100, y: 50, width: 1600, height: 900 };
const fit = resolveCamera({ mode: 'fit', scale: 1, x: 0, y: 0 }, view, space);

test('fit shows the whole view in the middle', () => {
  expect(fit.scale).toBe(0.5);
  expect(toScreen(fit, { x: 900, y: 500 })).toEqual({ x: 420, y: 320 });
});

test('fit never enlarges', () => {
  const small = { x: 0, y: 0, width: 40, height: 30 };
  expect(resolveCamera({ mode: 'fit', scale: 9, x: 0, y: 0 }, small, space).scale).toBe(1);
});

test('a long picture begins in full width at its top; asked for, all of it is shown', () => {
  const long = { x: 0, y: 10, width: 1600, height: 9000 };
  const start = resolveCamera({ mode: 'start', scale: 1, x: 0, y: 0 }, long, space);
  expect(start.scale).toBe(0.5);
  expect(toScreen(start, { x: 0, y: 10 })).toEqual({ x: 20, y: 20 });
  expect(resolveCamera({ ...start, mode: 'fit' }, long, space).scale).toBeCloseTo(600 / 9000);
  expect(resolveCamera({ ...start, mode: 'start' }, view, space)).toEqual({
    ...fit,
    mode: 'start',
  });
});

test('screen and frame are each other’s inverse', () => {
  const p = { x: 123.25, y: 456.5 };
  expect(toFrame(fit, toScreen(fit, p))).toEqual(p);
});

test('the place under the pointer stays where it is', () => {
  const at = { x: 200, y: 300 };
  const before = toFrame(fit, at);
  const after = toFrame(zoomAt(fit, at, 3), at);
  expect(after.x).toBeCloseTo(before.x);
  expect(after.y).toBeCloseTo(before.y);
});

test('zoom has its bounds, 3200 % at most', () => {
  expect(zoomTo(fit, 1000, space).scale).toBe(MOST_SCALE);
  expect(zoomTo(fit, 0, space).scale).toBe(LEAST_SCALE);
  expect(zoomTo(fit, 1, space)).toMatchObject({ mode: 'free', scale: 1 });
});

test('panning moves by pixels of the screen', () => {
  const moved = pan(fit, 10, -20);
  expect(toScreen(moved, { x: 900, y: 500 })).toEqual({ x: 430, y: 300 });
});
