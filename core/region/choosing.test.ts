import { describe, expect, test } from '@jest/globals';
import { polygonContains } from 'd3-polygon';
import {
  closeShape,
  dragShape,
  drawOn,
  moveShape,
  noShape,
  pressShape,
  releaseShape,
  shapeView,
  takeBack,
} from './freeShape';
import { dragTo, nothingChosen, ofSize, press } from './selection';
import { snapTo } from './snap';
import { findWindow, stepWindow, visiblePart, windowPlace, windowsAt } from './windowChoice';

const frame = { width: 400, height: 300 };

describe('free shape', () => {
  const line = (from: number, to: number, step: number) =>
    Array.from({ length: Math.abs(to - from) / Math.abs(step) + 1 }, (_, i) => ({
      x: from + i * step,
      y: 50,
    }));

  test('drawing back over the line takes it back', () => {
    let points = [{ x: 0, y: 50 }];
    for (const p of line(10, 100, 10)) points = drawOn(points, p, 8);
    expect(points.at(-1)).toEqual({ x: 100, y: 50 });
    for (const p of line(95, 45, -5)) points = drawOn(points, { x: p.x, y: 52 }, 8);
    expect(points.every((p) => p.x <= 60)).toBe(true);
    expect(points[0]).toEqual({ x: 0, y: 50 });
  });

  test('going on straight, or round a corner, takes nothing back', () => {
    let points = [{ x: 0, y: 0 }];
    for (let i = 1; i <= 20; i += 1) points = drawOn(points, { x: i * 5, y: 0 }, 8);
    for (let i = 1; i <= 20; i += 1) points = drawOn(points, { x: 100, y: i * 5 }, 8);
    expect(points).toHaveLength(41);
  });

  test('a loop closes when let go, and its view is the pixels around it', () => {
    let s = pressShape(noShape(frame, 'loop'), { x: 100, y: 50 }, 8);
    for (let a = 0.1; a < 6.2; a += 0.1) {
      s = dragShape(s, { x: 60 + 40 * Math.cos(a), y: 50 + 40 * Math.sin(a) }, 4);
    }
    const view = shapeView(releaseShape(s));
    expect(view?.crop.x).toBe(20);
    expect(view?.crop.width).toBeGreaterThanOrEqual(80);
    if (view?.shape.kind !== 'polygon') throw new Error('no polygon');
    const ring = view.shape.points.map((p): [number, number] => [p.x, p.y]);
    expect(polygonContains(ring, [60, 50])).toBe(true);
    expect(polygonContains(ring, [21, 12])).toBe(false);
  });

  test('a polygon: corners by clicks, one taken back, pulled and moved inside the frame', () => {
    let s = noShape(frame, 'polygon');
    for (const p of [
      { x: 10, y: 10 },
      { x: 110, y: 10 },
      { x: 300, y: 300 },
      { x: 110, y: 110 },
    ]) {
      s = pressShape(s, p, 5);
    }
    s = takeBack(takeBack(s));
    s = closeShape(pressShape(s, { x: 110, y: 110 }, 5));
    expect(shapeView(s)?.crop).toEqual({ x: 10, y: 10, width: 100, height: 100 });
    s = releaseShape(dragShape(pressShape(s, { x: 110, y: 110 }, 5), { x: 160, y: 120 }, 5));
    expect(shapeView(s)?.crop).toEqual({ x: 10, y: 10, width: 150, height: 110 });
    expect(shapeView(moveShape(s, { x: -50, y: 5 }))?.crop.x).toBe(0);
    expect(shapeView(moveShape(s, { x: 999, y: 0 }))?.crop.x).toBe(250);
  });

  test('two points are no shape', () => {
    const s = pressShape(
      pressShape(noShape(frame, 'polygon'), { x: 1, y: 1 }, 3),
      { x: 50, y: 9 },
      3,
    );
    expect(shapeView(closeShape(s))).toBeNull();
  });
});

describe('region', () => {
  const empty = nothingChosen(frame);

  test('Ctrl draws from the middle', () => {
    const drawn = dragTo(press(empty, { x: 100, y: 100 }, 5), { x: 130, y: 120 }, { centre: true });
    expect(drawn.region).toEqual({ x: 70, y: 80, width: 60, height: 40 });
  });

  test('edges are drawn softly to parts, and let go further away', () => {
    const snap = snapTo([{ x: 50, y: 40, width: 100, height: 60 }], 6);
    expect(snap({ x: 47, y: 103 })).toEqual({ x: 50, y: 100 });
    expect(snap({ x: 43, y: 107 })).toEqual({ x: 43, y: 107 });
    // Far above the part its upright edges are nobody's business.
    expect(snap({ x: 48, y: 5 })).toEqual({ x: 48, y: 5 });
    const s = press(empty, { x: 48, y: 38 }, 5, snap);
    expect(dragTo(s, { x: 153, y: 98 }, { snap }).region).toEqual({
      x: 50,
      y: 40,
      width: 100,
      height: 60,
    });
  });

  test('the last size comes again around a place, inside the frame', () => {
    expect(ofSize(empty, { width: 100, height: 50 }, { x: 10, y: 280 }).region).toEqual({
      x: 0,
      y: 250,
      width: 100,
      height: 50,
    });
  });
});

describe('windows', () => {
  const place = (x: number, y: number) => ({ x, y, width: 100, height: 80 });
  const windows = [
    { id: 1, title: 'Plant register', bounds: place(0, 0) },
    { id: 2, title: 'Garden notes', bounds: place(50, 40), frameBounds: place(48, 20) },
    { id: 3, title: 'Bed map of the garden', bounds: place(-60, 200) },
  ];

  test('under a place, the front one first, frames counted in', () => {
    expect(windowsAt(windows, { x: 60, y: 50 }).map((w) => w.id)).toEqual([2, 1]);
    expect(windowsAt(windows, { x: 49, y: 25 }).map((w) => w.id)).toEqual([2, 1]);
  });

  test('steps go round from front to back', () => {
    expect(stepWindow(windows, 3, 1)?.id).toBe(2);
    expect(stepWindow(windows, 1, 1)?.id).toBe(3);
    expect(stepWindow(windows, 3, -1)?.id).toBe(1);
    expect(stepWindow(windows, null, 1)?.id).toBe(3);
    expect(stepWindow([], null, 1)).toBeUndefined();
  });

  test('letters find the beginning of a title before a word within', () => {
    expect(findWindow(windows, 'gar')?.id).toBe(2);
    expect(findWindow(windows, 'REG')?.id).toBe(1);
    expect(findWindow(windows, 'ap')?.id).toBe(3);
    expect(findWindow(windows, 'zebra')).toBeUndefined();
  });

  test('with border, margin, and only what is in the picture', () => {
    const [, notes, map] = windows;
    if (!notes || !map) throw new Error('no window');
    expect(windowPlace(notes, { border: true, margin: 5 })).toEqual({
      x: 43,
      y: 15,
      width: 110,
      height: 90,
    });
    expect(visiblePart(windowPlace(map, { border: true, margin: 0 }), frame)).toEqual({
      x: 0,
      y: 200,
      width: 40,
      height: 80,
    });
    expect(visiblePart({ x: 500, y: 0, width: 10, height: 10 }, frame)).toBeNull();
  });
});
