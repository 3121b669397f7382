import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { encloses, overlap } from '../geometry/rect';
import { testShaper } from '@/tests/lib/shaper';
import { markSchema } from '../marks/registry';
import { besideView, snappedTo } from './bring';
import { dropRest } from './dropRest';
import { turnDocument } from './turnDocument';
import { joinedLayout } from './join';
import { sheetOf, untouched } from './view';

const size = fc.record({
  width: fc.integer({ min: 1, max: 800 }),
  height: fc.integer({ min: 1, max: 800 }),
});

describe('pictures put together', () => {
  test('lie on the sheet, apart by the gap at least, each in its proportions', () => {
    fc.assert(
      fc.property(
        fc.array(size, { minLength: 1, maxLength: 9 }),
        fc.constantFrom('stacked' as const, 'side by side' as const, 'grid' as const),
        fc.boolean(),
        fc.integer({ min: 0, max: 40 }),
        (sizes, how, equal, gap) => {
          const { sheet, places } = joinedLayout(sizes, { how, equal, gap });
          const inner = {
            ...{ x: gap, y: gap },
            ...{ width: sheet.width - 2 * gap, height: sheet.height - 2 * gap },
          };
          places.forEach((place, i) => {
            expect(encloses(inner, place)).toBe(true);
            const near = { ...place, width: place.width + gap, height: place.height + gap };
            for (const other of places.slice(i + 1)) expect(overlap(near, other)).toBe(false);
            const { width = 1, height = 1 } = sizes[i] ?? {};
            // Rounded to whole pixels.
            expect(Math.abs(place.width * height - place.height * width)).toBeLessThanOrEqual(
              Math.max(width, height),
            );
          });
        },
      ),
    );
  });

  const two = [
    { width: 400, height: 300 },
    { width: 200, height: 100 },
  ];
  test('equal, they are as wide as the narrowest, or side by side as high as the lowest', () => {
    const stacked = joinedLayout(two, { how: 'stacked', equal: true, gap: 10 });
    expect(stacked).toMatchObject({
      sheet: { width: 220, height: 10 + 150 + 10 + 100 + 10 },
      places: [
        { x: 10, y: 10, width: 200, height: 150 },
        { x: 10, y: 170, width: 200, height: 100 },
      ],
    });
    const beside = joinedLayout(two, { how: 'side by side', equal: true, gap: 0 });
    expect(beside.places.map(({ height }) => height)).toEqual([100, 100]);
    expect(beside.places[1]).toMatchObject({ x: 133, y: 0 });
  });
  test('before and after have their words above them', () => {
    const { labels, places, sheet } = joinedLayout(two, {
      ...{ how: 'before after', equal: false, gap: 10 },
    });
    expect(labels).toEqual([
      { text: 'Before', at: { x: 10, y: 10 } },
      { text: 'After', at: { x: 420, y: 10 } },
    ]);
    expect(places.map(({ y }) => y)).toEqual([50, 50]);
    expect(sheet).toEqual({ width: 630, height: 360 });
  });
  test('in a grid they are as many across as down, or one more', () => {
    const five = Array.from({ length: 5 }, () => ({ width: 10, height: 10 }));
    const { places, sheet } = joinedLayout(five, { how: 'grid', equal: false, gap: 2 });
    expect(places.map(({ x, y }) => [x, y])).toEqual([
      [2, 2],
      [14, 2],
      [26, 2],
      [2, 14],
      [14, 14],
    ]);
    expect(sheet).toEqual({ width: 38, height: 26 });
  });
});

describe('a part brought beside a view', () => {
  const crop = { x: 300, y: 200, width: 400, height: 300 };
  test.each([
    ['above it', { x: 350, y: 0, width: 200, height: 50 }, { x: 350, y: 150 }, { top: 50 }],
    ['below it', { x: 0, y: 600, width: 100, height: 80 }, { x: 300, y: 500 }, { bottom: 80 }],
    ['left of it', { x: 0, y: 250, width: 90, height: 60 }, { x: 210, y: 250 }, { left: 90 }],
    ['right of it', { x: 900, y: 0, width: 60, height: 500 }, { x: 700, y: 200 }, { right: 60 }],
    // Wider than the view, it begins in line and the view grows to the right.
    [
      'above and wider',
      { x: 0, y: 0, width: 1000, height: 40 },
      { x: 300, y: 160 },
      { top: 40, right: 600 },
    ],
    ['within it', { x: 400, y: 300, width: 50, height: 20 }, { x: 400, y: 500 }, { bottom: 20 }],
  ])('lies there, from %s', (_, part, at, room) => {
    const brought = besideView({ crop }, part);
    expect(brought.at).toEqual(at);
    expect(brought.room).toMatchObject({ top: 0, left: 0, ...room });
    const sheet = sheetOf({ crop, room: brought.room });
    expect(encloses(sheet, { ...part, ...brought.at })).toBe(true);
    expect(overlap(crop, { ...part, ...brought.at })).toBe(false);
  });
  test('comes beyond what was brought before', () => {
    const first = besideView({ crop }, { x: 300, y: 0, width: 400, height: 50 });
    const second = besideView(
      { crop, room: first.room },
      { x: 300, y: 60, width: 400, height: 30 },
    );
    expect(second.at.y).toBe(200 - 50 - 30);
    expect(second.room.top).toBe(80);
  });
  test('is drawn to edges that are near, and to no others', () => {
    const edges = [{ x: 100, y: 50, width: 200, height: 40 }];
    const near = { x: 97, y: 52, width: 206, height: 80 };
    expect(snappedTo(near, edges, 5)).toEqual({ x: 100, y: 50, width: 200, height: 82 });
    expect(snappedTo(near, [], 5)).toEqual(near);
  });
});

describe('a part whose frame is another one', () => {
  const piece = markSchema.parse({
    ...{ id: 'p', kind: 'piece', x: 20, y: 10, width: 40, height: 20, hotSpot: { x: 0, y: 0 } },
    ...{ pointer: 'arrow', from: { x: 5, y: 5, width: 40, height: 20 } },
  });
  const size = { width: 200, height: 100 };
  const document = { ...untouched(size), marks: [piece] };
  test('forgets its place when the frame is turned', async () => {
    const tools = { shaper: await testShaper() };
    const turn = { quarters: 1, mirrored: false, angle: 0 };
    expect(turnDocument(document, size, turn, tools).marks[0]).not.toHaveProperty('from');
  });
  test('forgets it when the rest is dropped for good', async () => {
    const dropped = dropRest(document, { shaper: await testShaper() });
    expect(dropped.document.marks[0]).not.toHaveProperty('from');
  });
});
