import { beforeEach, describe, expect, test } from '@jest/globals';
import type { Point } from '@/core/geometry/point';
import { everyMark } from '@/tests/lib/marks';
import { movedTo, pressAt } from '@/tests/lib/pointer';
import { ids, openTestSession } from '@/tests/lib/session';
import { chooseTool } from '../actions/chooseTool';
import { markById, marks, select } from '../session/select';
import {
  abandon,
  gestureGoesOn,
  moveTo,
  pressCrop,
  pressHandle,
  pressOn,
  releaseAll,
  startPan,
} from './hand';
import type { Tool } from '../session/tool';
import { session } from '../session/session';

const at = (x: number, y: number): Point => ({ x, y });
const boxes = everyMark.filter((m) => m.id === 'box2' || m.id === 'box');

beforeEach(async () => {
  abandonIfAny();
  await openTestSession(boxes);
});

function abandonIfAny(): void {
  if (gestureGoesOn()) releaseAll();
}

/** Presses at the first point, goes through the others, releases. */
function stroke(tool: Tool, points: Point[], keep = false): void {
  chooseTool(tool);
  const [first = at(0, 0), ...rest] = points;
  pressOn(pressAt(first));
  for (const p of rest) moveTo(movedTo(p, { keep, free: true }));
  releaseAll();
}

describe('drawing', () => {
  test('a box from corner to corner, a square with Shift', () => {
    stroke('box', [at(10, 10), at(30, 20), at(110, 60)]);
    expect(marks().at(-1)).toMatchObject({ kind: 'box', x: 10, y: 10, width: 100, height: 50 });
    stroke('oval', [at(10, 10), at(110, 60)], true);
    expect(marks().at(-1)).toMatchObject({ kind: 'oval', width: 100, height: 100 });
  });

  test('an arrow with Shift keeps to steps of 15°', () => {
    stroke('arrow', [at(0, 100), at(200, 108)], true);
    const arrow = marks().at(-1);
    expect(arrow?.kind === 'arrow' && Math.abs(arrow.to.y - 100)).toBeLessThan(0.6);
  });

  test('a pen keeps every point, a tap makes a dot', () => {
    stroke('pen', [at(10, 10), at(20, 30), at(40, 35)]);
    expect(marks().at(-1)).toMatchObject({
      points: [
        [10, 10, 0.5],
        [20, 30, 0.5],
        [40, 35, 0.5],
      ],
    });
    stroke('pen', [at(5, 5)]);
    expect(marks().at(-1)).toMatchObject({ points: [[5, 5, 0.5]] });
  });

  test('a click with a drag tool makes nothing', () => {
    stroke('box', [at(10, 10)]);
    stroke('arrow', [at(10, 10), at(11, 11)]);
    expect(ids()).toHaveLength(2);
    expect(session().live).toEqual([]);
  });

  test('Esc in the middle leaves nothing', () => {
    chooseTool('box');
    pressOn(pressAt(at(10, 10)));
    moveTo(movedTo(at(80, 80)));
    expect(session().live).toHaveLength(1);
    abandon();
    releaseAll();
    expect(ids()).toHaveLength(2);
    expect(session().history.steps).toHaveLength(0);
  });
});

describe('grabbing', () => {
  test('selects the topmost, moves it, and adds with Shift', () => {
    stroke('grab', [at(360, 160), at(350, 150), at(340, 170)]);
    expect(session().selection).toEqual(['box2']);
    expect(markById('box2')).toMatchObject({ x: 300, y: 110 });
    pressOn(pressAt(at(200, 160), { adds: true }));
    releaseAll();
    expect(session().selection).toEqual(['box2', 'box']);
    pressOn(pressAt(at(200, 160), { adds: true }));
    releaseAll();
    expect(session().selection).toEqual(['box2']);
  });

  test('several move together as one step', () => {
    chooseTool('grab');
    select(['box', 'box2']);
    pressOn(pressAt(at(360, 160)));
    moveTo(movedTo(at(370, 165)));
    releaseAll();
    expect([markById('box'), markById('box2')]).toMatchObject([
      { x: 110.5, y: 105 },
      { x: 330, y: 105 },
    ]);
    expect(session().history.steps).toHaveLength(1);
  });

  test('on empty ground a frame is drawn that selects what lies wholly inside it', () => {
    chooseTool('grab');
    select(['box']);
    pressOn(pressAt(at(590, 395)));
    expect(session().selection).toEqual([]);
    moveTo(movedTo(at(630, 415)));
    releaseAll();
    expect(session().selection).toEqual([]);
    expect(session().marquee).toBeNull();
    pressOn(pressAt(at(308, 88)));
    moveTo(movedTo(at(412, 236)));
    expect(session().marquee).toEqual({ x: 308, y: 88, width: 104, height: 148 });
    releaseAll();
    expect(session().selection).toContain('box2');
    expect(session().selection).not.toContain('box');
  });

  test('panning goes on from where it was', () => {
    startPan(at(0, 0));
    moveTo(movedTo(at(0, 0), { screen: at(5, 0) }));
    moveTo(movedTo(at(0, 0), { screen: at(10, 0) }));
    releaseAll();
    expect(session().camera.x).toBe(-10);
  });
});

describe('handles', () => {
  test('reshape as one step; Esc puts the old shape back', () => {
    const box = markById('box2');
    if (!box) throw new Error('no box');
    pressHandle(box, 'se');
    moveTo(movedTo(at(450, 250)));
    abandon();
    expect(markById('box2')).toMatchObject({ width: 80 });
    pressHandle(box, 'se');
    moveTo(movedTo(at(420, 230)));
    moveTo(movedTo(at(450, 250)));
    releaseAll();
    expect(markById('box2')).toMatchObject({ width: 130, height: 150 });
    expect(session().history.steps).toHaveLength(1);
  });

  test('Crop is pulled by a grip and moved inside the frame', () => {
    chooseTool('crop');
    pressCrop('se', at(600, 400));
    moveTo(movedTo(at(300, 200)));
    releaseAll();
    expect(session().cropping).toEqual({ x: 0, y: 0, width: 300, height: 200 });
    pressCrop('move', at(10, 10));
    moveTo(movedTo(at(9999, 60), { screen: at(0, 0) }));
    releaseAll();
    expect(session().cropping).toEqual({ x: 300, y: 50, width: 300, height: 200 });
  });
});
