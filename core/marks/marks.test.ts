import { beforeAll, describe, expect, test } from '@jest/globals';
import { everyMark } from '@/tests/lib/marks';
import { onChequer, testTools } from '@/tests/lib/painting';
import { stretching, turning } from '../geometry/mapping';
import { contains, outerPixels } from '../geometry/rect';
import { paintMark } from '../paint/paintMark';
import type { PaintTools } from './contract';
import { firstStyles, kindOf, markNames, type Mark } from './registry';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

const SIZE = { width: 640, height: 420 };

/** The pixels a mark changes. */
function touched(mark: Mark): { x: number; y: number }[] {
  const { surface, scene } = onChequer([mark], SIZE, tools);
  // The sheet is opaque, so that whole pixels can be compared.
  const pixels = () =>
    new Uint32Array(surface.getImageData(0, 0, SIZE.width, SIZE.height).data.buffer);
  const before = pixels();
  paintMark(surface, mark, tools, scene);
  const after = pixels();
  const places = [];
  for (let i = 0; i < after.length; i += 1) {
    if (after[i] !== before[i]) {
      places.push({ x: i % SIZE.width, y: Math.floor(i / SIZE.width) });
    }
  }
  return places;
}

describe.each(everyMark.map((mark) => [mark.id, mark] as const))('%s', (_, mark) => {
  const kind = kindOf(mark);
  let places: ReturnType<typeof touched>;
  beforeAll(() => {
    places = touched(mark);
  });

  test('fits its schema', () => {
    expect(kind.schema.parse(JSON.parse(JSON.stringify(mark)))).toEqual(mark);
  });

  test('paints something, all of it within its bounds', () => {
    const bounds = outerPixels(kind.bounds(mark, tools));
    expect(places.length).toBeGreaterThan(20);
    if (kind.everywhere) return;
    for (const p of places)
      if (!contains(bounds, p)) throw new Error(`painted outside at ${p.x}, ${p.y}`);
  });

  test('switched off it paints nothing', () => {
    expect(touched({ ...mark, off: true })).toHaveLength(0);
  });

  test('moves as a whole', () => {
    const before = kind.bounds(mark, tools);
    const after = kind.bounds(kind.move(mark, { x: 11, y: -7 }), tools);
    expect(after.x).toBeCloseTo(before.x + 11, 1);
    expect(after.y).toBeCloseTo(before.y - 7, 1);
    expect(after.width).toBeCloseTo(before.width, 1);
  });

  test('is hit where it is painted, and not far away', () => {
    const some = places[Math.floor(places.length / 2)];
    if (!kind.everywhere) expect(some && kind.hit(mark, some, 2, tools)).toBe(true);
    expect(kind.hit(mark, { x: 5000, y: 5000 }, 2, tools)).toBe(false);
  });

  test('its handles and numbers change it', () => {
    for (const handle of kind.handles(mark, tools)) {
      const to = { x: handle.at.x + 13, y: handle.at.y + 9 };
      expect(kind.pull(mark, handle.id, to, false, tools)).not.toEqual(mark);
    }
    for (const field of kind.numbers(mark, tools)) {
      const next = kind.withNumber(mark, field.id, field.value + 5);
      if (field.value > 0 || !/width|height/.test(field.id)) expect(next).not.toEqual(mark);
      expect(kind.schema.safeParse(next).success).toBe(true);
    }
  });

  test('goes with what it lies on', () => {
    const about = { x: 300, y: 200 };
    const round = [90, 90, 90, 90].reduce(
      (m, by) => kind.through(m, turning(about, by), tools),
      mark,
    );
    const [a, b] = [kind.bounds(mark, tools), kind.bounds(round, tools)];
    // Some bounds are whole pixels.
    expect(Math.abs(b.x - a.x)).toBeLessThanOrEqual(1);
    expect(Math.abs(b.y - a.y)).toBeLessThanOrEqual(1);
    expect(kind.schema.safeParse(JSON.parse(JSON.stringify(round))).success).toBe(true);
    const grown = kind.through(
      mark,
      stretching(
        { x: 0, y: 0, width: 600, height: 400 },
        { x: 10, y: 20, width: 900, height: 600 },
      ),
      tools,
    );
    expect(kind.schema.safeParse(grown).success).toBe(true);
    expect(grown).not.toEqual(mark);
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

test('every kind there is has an example here', () => {
  expect([...new Set(everyMark.map((mark) => mark.kind))].sort()).toEqual([...markNames].sort());
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
  expect(kindOf(box).hit(box, { x: 240, y: 200 }, 3, tools)).toBe(false);
});
