import { describe, expect, test } from '@jest/globals';
import { shownOn, viewOf } from './shownPart';

const left = { id: 'Left', bounds: { x: 0, y: 0, width: 800, height: 600 } };
const right = { id: 'Right', bounds: { x: 800, y: 100, width: 640, height: 480 } };
const all = { id: 'all', bounds: { x: 0, y: 0, width: 1440, height: 600 } };
const displays = [left, right, all];
const whole = { picture: { width: 1440, height: 600 }, origin: { x: 0, y: 0 } };

describe('which display is recorded', () => {
  test('the one that shows all of the part, and where it lies there', () => {
    const crop = { x: 900, y: 150, width: 100, height: 50 };
    expect(shownOn(displays, { crop, ...whole })).toEqual({
      display: 'Right',
      shown: { crop: { ...crop, x: 100, y: 50 }, of: { width: 640, height: 480 } },
    });
  });

  test('all of them where the part lies on two', () => {
    const crop = { x: 700, y: 150, width: 200, height: 50 };
    expect(shownOn(displays, { crop, ...whole })).toEqual({
      display: 'all',
      shown: { crop, of: { width: 1440, height: 600 } },
    });
  });

  test('chosen on a picture of one display, a free shape goes with its place', () => {
    const points = [
      { x: 1, y: 2 },
      { x: 30, y: 2 },
      { x: 3, y: 40 },
    ];
    const chosen = {
      crop: { x: 1, y: 2, width: 29, height: 38 },
      shape: { kind: 'polygon' as const, points },
      ...{ picture: { width: 640, height: 480 }, origin: { x: 800, y: 100 } },
    };
    expect(shownOn([right, left], chosen)).toHaveProperty('display', 'Right');
    expect(shownOn([right, left], chosen).shown.shape).toEqual({ kind: 'polygon', points });
    expect(shownOn([all], chosen).shown.shape).toEqual({
      kind: 'polygon',
      points: points.map(({ x, y }) => ({ x: x + 800, y: y + 100 })),
    });
  });

  test('none where there is one picture only; then it lies as it was chosen', () => {
    const crop = { x: 10, y: 20, width: 30, height: 40 };
    const { picture } = whole;
    expect(shownOn([], { crop, ...whole })).toEqual({
      display: null,
      shown: { crop, of: picture },
    });
  });
});

describe('the view of the film', () => {
  const of = { width: 400, height: 300 };
  const crop = { x: 40, y: 30, width: 100, height: 60 };

  test('is what was chosen, where its pictures became as large', () => {
    expect(viewOf({ crop, of }, of)).toEqual({ crop });
    const shape = { kind: 'oval' as const };
    expect(viewOf({ crop, of, shape }, of)).toEqual({ crop, shape });
  });

  test('is the same part of pictures of another size', () => {
    expect(viewOf({ crop, of }, { width: 800, height: 150 })).toEqual({
      crop: { x: 80, y: 15, width: 200, height: 30 },
    });
    const points = [
      { x: 40, y: 30 },
      { x: 140, y: 30 },
      { x: 40, y: 90 },
    ];
    expect(
      viewOf({ crop, of, shape: { kind: 'polygon', points } }, { width: 800, height: 600 }),
    ).toEqual({
      crop: { x: 80, y: 60, width: 200, height: 120 },
      shape: { kind: 'polygon', points: points.map(({ x, y }) => ({ x: 2 * x, y: 2 * y })) },
    });
  });

  test('never reaches beyond the picture', () => {
    const { crop: inside } = viewOf({ crop: { ...crop, width: 5_000 }, of }, of);
    expect(inside.x + inside.width).toBe(400);
  });
});
