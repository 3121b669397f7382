import { beforeAll, describe, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { everyMark } from '@/tests/lib/marks';
import { testBitmap } from '@/tests/lib/bitmap';
import { testShaper } from '@/tests/lib/shaper';
import { contains, outerPixels } from '../geometry/rect';
import { paintMark } from '../paint/painter';
import type { Shaper } from '../paint/shaper';
import { firstStyles, kindOf, markNames, type Mark } from './registry';

let shaper: Shaper;
beforeAll(async () => {
  shaper = await testShaper();
});

const SIZE = { width: 640, height: 420 };

/** The pixels a mark changes on white. */
function touched(mark: Mark): { x: number; y: number }[] {
  const surface = createCanvas(SIZE.width, SIZE.height).getContext('2d');
  surface.fillStyle = '#FFFFFF';
  surface.fillRect(0, 0, SIZE.width, SIZE.height);
  paintMark(surface, mark, { shaper, bitmap: testBitmap });
  const { data } = surface.getImageData(0, 0, SIZE.width, SIZE.height);
  const places = [];
  for (let i = 0; i < data.length; i += 4) {
    if (data[i] !== 255 || data[i + 1] !== 255 || data[i + 2] !== 255) {
      places.push({ x: (i / 4) % SIZE.width, y: Math.floor(i / 4 / SIZE.width) });
    }
  }
  return places;
}

describe.each(everyMark.map((mark) => [mark.id, mark] as const))('%s', (_, mark) => {
  const kind = kindOf(mark);

  test('fits its schema', () => {
    expect(kind.schema.parse(JSON.parse(JSON.stringify(mark)))).toEqual(mark);
  });

  test('paints something, all of it within its bounds', () => {
    const bounds = outerPixels(kind.bounds(mark, { shaper }));
    const places = touched(mark);
    expect(places.length).toBeGreaterThan(20);
    for (const p of places)
      if (!contains(bounds, p)) throw new Error(`painted outside at ${p.x}, ${p.y}`);
  });

  test('switched off it paints nothing', () => {
    expect(touched({ ...mark, off: true })).toHaveLength(0);
  });

  test('moves as a whole', () => {
    const before = kind.bounds(mark, { shaper });
    const after = kind.bounds(kind.move(mark, { x: 11, y: -7 }), { shaper });
    expect(after.x).toBeCloseTo(before.x + 11, 1);
    expect(after.y).toBeCloseTo(before.y - 7, 1);
    expect(after.width).toBeCloseTo(before.width, 1);
  });

  test('is hit where it is painted, and not far away', () => {
    const places = touched(mark);
    const some = places[Math.floor(places.length / 2)];
    expect(some && kind.hit(mark, some, 2, { shaper })).toBe(true);
    expect(kind.hit(mark, { x: 5000, y: 5000 }, 2, { shaper })).toBe(false);
  });

  test('its handles and numbers change it', () => {
    for (const handle of kind.handles(mark, { shaper })) {
      const to = { x: handle.at.x + 13, y: handle.at.y + 9 };
      expect(kind.pull(mark, handle.id, to, false, { shaper })).not.toEqual(mark);
    }
    for (const field of kind.numbers(mark, { shaper })) {
      const next = kind.withNumber(mark, field.id, field.value + 5);
      if (field.value > 0 || !/width|height/.test(field.id)) expect(next).not.toEqual(mark);
      expect(kind.schema.safeParse(next).success).toBe(true);
    }
  });

  test('takes the settings it has and no others', () => {
    const style = kind.styleOf(mark);
    // A piece of unknown shape has none to choose.
    const settings = mark.kind === 'piece' && !mark.pointer ? [] : [...kind.settings];
    expect(Object.keys(style).sort()).toEqual(settings.sort());
    if ('colour' in mark) {
      expect(kind.restyle(mark, { colour: '#000000' })).toMatchObject({ colour: '#000000' });
    }
    expect(
      kind.schema.safeParse(kind.restyle(mark, { textSize: 40, heads: 'both', outline: 3 }))
        .success,
    ).toBe(true);
  });
});

test.each(markNames)('the %s tool makes a mark that fits', (name) => {
  const mark = kindOf(name).create(
    'new',
    [
      { x: 10, y: 10 },
      { x: 80, y: 60 },
    ],
    firstStyles[name],
  );
  expect(kindOf(name).schema.safeParse(mark).success).toBe(true);
  expect(mark.kind).toBe(name);
  expect(kindOf(mark).describe(mark).length).toBeGreaterThan(0);
});

test('a box without fill is hit at its line only', () => {
  const box = everyMark.find((m) => m.id === 'oval');
  if (!box) throw new Error('no oval');
  expect(kindOf(box).hit(box, { x: 240, y: 200 }, 3, { shaper })).toBe(false);
});
