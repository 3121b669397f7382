import { expect, test } from '@jest/globals';
import { Touches } from './touches';

const finger = (pointerId: number) => ({ pointerId, pointerType: 'touch' });
const camera = { mode: 'free' as const, scale: 1, x: 0, y: 0 };

test('one finger draws, a second one makes it a pinch that zooms about its middle', () => {
  const touches = new Touches();
  expect(touches.press(finger(1), { x: 100, y: 100 }, 0)).toBe('draw');
  expect(touches.move(finger(1), { x: 100, y: 100 }, camera)).toBeNull();
  expect(touches.press(finger(2), { x: 200, y: 100 }, 10)).toBe('pinch');
  const wider = touches.move(finger(2), { x: 300, y: 100 }, camera);
  expect(wider?.scale).toBeCloseTo(2, 6);
  // The place between the fingers stays between them.
  expect(((150 - (wider?.x ?? 0)) * (wider?.scale ?? 0)).toFixed(3)).toBe('200.000');
  expect(touches.release(finger(2))).toBe(true);
  expect(touches.release(finger(1))).toBe(false);
});

test('two fingers that move together only pan', () => {
  const touches = new Touches();
  touches.press(finger(1), { x: 100, y: 100 }, 0);
  touches.press(finger(2), { x: 200, y: 100 }, 0);
  const first = touches.move(finger(1), { x: 120, y: 140 }, camera);
  const both = first && touches.move(finger(2), { x: 220, y: 140 }, first);
  expect(both?.scale).toBeCloseTo(1, 6);
  expect(both?.x).toBeCloseTo(-20, 6);
  expect(both?.y).toBeCloseTo(-40, 6);
});

test('a palm is nothing while the pen is near', () => {
  const touches = new Touches();
  touches.hover({ pointerId: 9, pointerType: 'pen' }, 1000);
  expect(touches.press(finger(1), { x: 5, y: 5 }, 1200)).toBe('palm');
  expect(touches.press(finger(1), { x: 5, y: 5 }, 1700)).toBe('draw');
});
