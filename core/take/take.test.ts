import { describe, expect, test } from '@jest/globals';
import { lastRegionAfter } from './lastRegion';
import { takenDocument } from './takenDocument';
import { windowInUse } from './windowInUse';

const at = '2026-11-26T08:00:00.000Z';
const region = { x: 10, y: 20, width: 300, height: 200 };
const before = { display: 'all', region, at: '2026-11-25T08:00:00.000Z' };

describe('what Repeat region takes again', () => {
  test('is the last region or part', () => {
    expect(lastRegionAfter('region', { display: 'Left', region, at }, undefined)).toEqual({
      ...{ display: 'Left', region, at },
    });
    expect(lastRegionAfter('part', { display: 'Left', region, at }, before)?.display).toBe('Left');
  });

  test('stays whole when only a part of it was on the screen', () => {
    const seen = { display: 'Left', region: { ...region, width: 120 }, at };
    expect(lastRegionAfter('repeat', seen, before)).toEqual({ ...before, at });
  });

  test.each(['full', 'window', 'shape'] as const)('is not a %s', (kind) => {
    expect(lastRegionAfter(kind, { display: 'all', region, at }, before)).toBeNull();
  });
});

describe('the window in use', () => {
  const back = { id: 1, title: 'Beds', bounds: { x: 0, y: 0, width: 100, height: 100 } };
  const front = { id: 2, title: 'Seeds', bounds: { x: 50, y: 50, width: 100, height: 100 } };
  const seen = { windows: [back, front], focused: 1 };

  test.each([
    ['focused', { x: 60, y: 60 }, 1],
    ['pointer', { x: 60, y: 60 }, 2],
    ['pointer', { x: 10, y: 10 }, 1],
    ['pointer', { x: 500, y: 500 }, 1],
    ['pointer', null, 1],
  ] as const)('by the %s at %o', (inUseIs, pointer, id) => {
    expect(windowInUse({ ...seen, pointer }, inUseIs)?.id).toBe(id);
  });

  test('is none where nothing has the keyboard', () => {
    const none = { windows: [back], focused: null, pointer: null };
    expect(windowInUse(none, 'pointer')).toBeUndefined();
  });
});

describe('the document of a take', () => {
  const frame = { width: 400, height: 300 };
  const crop = { x: 100, y: 100, width: 50, height: 50 };
  const piece = {
    ...{ id: 'pointer', kind: 'piece' as const, x: 0, y: 0, width: 24, height: 24 },
    hotSpot: { x: 0, y: 0 },
    pointer: 'arrow' as const,
  };

  test('has the pointer only where it points at what is taken', () => {
    const with_ = (x: number) => takenDocument(frame, { crop }, { at: { x, y: 120 }, piece });
    expect(with_(120).marks).toEqual([piece]);
    expect(with_(151).marks).toEqual([]);
    expect(takenDocument(frame, { crop }, null).marks).toEqual([]);
  });

  test('brings the crop of a free shape inside the frame', () => {
    const points = [
      { x: 380, y: 10 },
      { x: 420, y: 10 },
      { x: 400, y: 40 },
    ];
    const { view } = takenDocument(frame, { crop, shape: { kind: 'polygon', points } }, null);
    expect(view.crop).toEqual({ x: 380, y: 10, width: 20, height: 30 });
  });
});
