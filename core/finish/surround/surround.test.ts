import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply } from '../../geometry/matrix';
import { testShaper } from '@/tests/lib/shaper';
import { gradient, inRatio } from './background';
import { caption } from './caption';
import { fieldsIn, filledCaption } from './fields';
import { columnsOf } from './fold';
import { layoutOf, onWhole } from './layout';
import { outlineOf, ragged, tornOutline } from './ragged';
import { shadow } from './shadow';
import { labelOf, partOrder, parts, surroundSchema, type Surround } from './surround';
import { tilted } from './tilt';

const size = fc.record({
  width: fc.integer({ min: 1, max: 3000 }),
  height: fc.integer({ min: 1, max: 3000 }),
});

test('every part begins with what its schema takes, and has a name', () => {
  for (const name of partOrder) {
    expect(surroundSchema.parse({ [name]: parts[name].first })).toEqual({
      [name]: parts[name].first,
    });
    expect(labelOf(name)).not.toBe('');
  }
  expect(new Set(partOrder)).toEqual(new Set(Object.keys(parts)));
});

test.each([
  ['a border below nothing', { border: { ...parts.border.first, width: -1 } }],
  ['a huge border', { border: { ...parts.border.first, width: 401 } }],
  ['half a pixel', { background: { ...parts.background.first, room: 1.5 } }],
  ['a colour by name', { border: { ...parts.border.first, colour: 'red' } }],
  [
    'three colours',
    { background: { ...parts.background.first, colours: Array(3).fill('#000000') } },
  ],
  ['a caption of 20 000 letters', { caption: { ...caption.first, text: 'a'.repeat(20_000) } }],
  ['a part that is none', { frame: {} }],
])('%s is refused', (_, odd) => {
  expect(surroundSchema.safeParse(odd).success).toBe(false);
});

describe('columns', () => {
  test('hold every row once, side by side, however many there are', () => {
    fc.assert(
      fc.property(size, fc.integer({ min: 2, max: 12 }), fc.nat(50), (of, columns, gap) => {
        const pieces = columnsOf(of, { columns, gap }, 3);
        expect(pieces.length).toBeLessThanOrEqual(columns);
        const rows = pieces.flatMap(({ source }) => [source.y, source.y + source.height]);
        expect(rows[0]).toBe(0);
        expect(rows.at(-1)).toBe(of.height);
        pieces.slice(1).forEach((piece, i) => {
          const before = pieces[i];
          if (!before) throw new Error('no column before');
          expect(piece.source.y).toBe(before.source.y + before.source.height);
          expect(piece.at.x).toBe(before.at.x + of.width + 6 + gap);
        });
      }),
    );
  });
});

describe('a torn edge', () => {
  const box = { x: 10, y: 20, width: 300, height: 200 };
  const all = { ...ragged.first, top: true, right: true, bottom: true, left: true, depth: 20 };

  test('reaches in by its depth at most, on its own sides alone', () => {
    const torn = tornOutline(box, { ...all, left: false, right: false });
    for (const { x, y } of outlineOf(torn)) {
      expect(x).toBeGreaterThanOrEqual(10);
      expect(x).toBeLessThanOrEqual(310);
      expect(Math.min(y - 20, 220 - y)).toBeGreaterThanOrEqual(0);
      expect(Math.min(y - 20, 220 - y)).toBeLessThanOrEqual(20);
    }
    const depths = torn.top.map(({ y }) => y - 20);
    expect(Math.max(...depths) - Math.min(...depths)).toBeGreaterThan(6);
    expect(torn.left).toEqual([
      { x: 10, y: torn.left[0]?.y },
      { x: 10, y: torn.left[1]?.y },
    ]);
  });

  test('is the same for the same seed, another for another, and for each piece', () => {
    expect(tornOutline(box, all)).toEqual(tornOutline(box, all));
    expect(tornOutline(box, { ...all, seed: 2 })).not.toEqual(tornOutline(box, all));
    expect(tornOutline(box, all, 1)).not.toEqual(tornOutline(box, all));
  });

  test('of a picture of a few pixels leaves something of it', () => {
    const tiny = { x: 0, y: 0, width: 3, height: 2 };
    for (const { x, y } of outlineOf(tornOutline(tiny, { ...all, depth: 400 }))) {
      expect(x >= 0 && x <= 3 && y >= 0 && y <= 2).toBe(true);
    }
  });
});

// Source: central projection, x′ = x · e ÷ (e + z), of corners turned by hand.
describe('a tilt', () => {
  const card = { width: 400, height: 200 };
  /** The eye is two longest sides away. */
  const EYE = 800;

  test('about the upright axis takes each corner where projection does', () => {
    const { to, from, size: seen } = tilted(card, { across: 30, up: 0 });
    // cos 30° · 200 = 173.205; sin 30° · 200 = 100 further away or nearer.
    const [near, far] = [EYE / (EYE - 100), EYE / (EYE + 100)];
    const left = -173.205 * near;
    const top = -100 * near;
    const at = (x: number, y: number) => apply(to, { x, y });
    const close = (p: { x: number; y: number }, x: number, y: number) => {
      expect(p.x).toBeCloseTo(x - left, 1);
      expect(p.y).toBeCloseTo(y - top, 1);
    };
    close(at(0, 0), left, -100 * near);
    close(at(400, 0), 173.205 * far, -100 * far);
    close(at(400, 200), 173.205 * far, 100 * far);
    close(at(0, 200), left, 100 * near);
    // The middle of the card is where the axes meet, though not the middle of what is seen.
    close(at(200, 100), 0, 0);
    expect(seen).toEqual({
      width: Math.ceil(173.205 * (near + far)),
      height: Math.ceil(200 * near),
    });
    const back = apply(from, at(123, 45));
    expect(back.x).toBeCloseTo(123, 6);
    expect(back.y).toBeCloseTo(45, 6);
  });

  test('about the level axis takes the top away', () => {
    const { to } = tilted(card, { across: 0, up: 40 });
    const width = (y: number) => apply(to, { x: 400, y }).x - apply(to, { x: 0, y }).x;
    const away = EYE / (EYE + 100 * Math.sin((40 * Math.PI) / 180));
    expect(width(0)).toBeCloseTo(400 * away, 1);
    expect(width(200)).toBeGreaterThan(400);
  });

  test('of nothing changes nothing', () => {
    const { to, size: seen } = tilted(card, { across: 0, up: 0 });
    expect(seen).toEqual(card);
    expect(apply(to, { x: 12, y: 34 })).toEqual({ x: 12, y: 34 });
  });
});

describe('the layout', () => {
  const of = async (surround: Surround, isShaped = false) =>
    layoutOf(surround, { width: 300, height: 200 }, isShaped, await testShaper());
  const border = { ...parts.border.first, width: 10 };
  const background = { ...parts.background.first, room: 40 };

  test('of nothing is the picture', async () => {
    expect(await of({})).toMatchObject({ whole: { width: 300, height: 200 }, at: { x: 0, y: 0 } });
  });

  test('adds border and room on every side', async () => {
    const layout = await of({ border, background });
    expect(layout.whole).toEqual({ width: 400, height: 300 });
    expect(onWhole(layout, { x: 5, y: 6 })).toEqual({ x: 55, y: 56 });
  });

  test('holds the whole shadow, and room as large holds it as well', async () => {
    // Deviation 10: boxes of ⌊10 · 1.88 + ½⌋ = 19, which reach 28.5.
    const thrown = { ...shadow.first, x: 5, y: -3, blur: 20 };
    expect(await of({ shadow: thrown })).toMatchObject({
      whole: { width: 300 + (29 - 5) + (29 + 5), height: 200 + (29 + 3) + (29 - 3) },
      at: { x: 24, y: 32 },
    });
    expect((await of({ shadow: thrown, background })).whole).toEqual({ width: 380, height: 280 });
  });

  test.each(['below', 'above'] as const)('has the caption %s, within the room', async (at) => {
    const layout = await of({ background, caption: { ...caption.first, text: 'Pond', at } });
    const { height = 0 } = layout.caption?.block ?? {};
    expect(layout.whole).toEqual({ width: 380, height: 280 + height });
    expect(layout.at).toEqual({ x: 40, y: at === 'above' ? 40 + height : 40 });
    expect(layout.caption?.at).toEqual({ x: 40, y: at === 'above' ? 40 : 240 });
  });

  test('breaks a long caption, and leaves an empty one away', async () => {
    const text = 'a word and another '.repeat(50);
    const long = await of({ caption: { ...caption.first, text } });
    expect(long.whole.width).toBe(300);
    expect(long.caption?.block.words.lines.length).toBeGreaterThan(20);
    const endless = await of({ caption: { ...caption.first, text: 'a'.repeat(2000) } });
    expect(endless.whole.width).toBe(300);
    expect((await of({ caption: { ...caption.first, text: '  \n ' } })).caption).toBeNull();
  });

  test('brings the whole to a ratio by more room', async () => {
    const ratio = { width: 1, height: 1 };
    const layout = await of({ background: { ...background, ratio } });
    expect(layout.whole).toEqual({ width: 380, height: 380 });
    expect(layout.at).toEqual({ x: 40, y: 90 });
    fc.assert(
      fc.property(size, size, (picture, r) => {
        const whole = inRatio(picture, {
          width: (r.width % 100) + 1,
          height: (r.height % 100) + 1,
        });
        expect(whole.width >= picture.width && whole.height >= picture.height).toBe(true);
        expect(whole.width === picture.width || whole.height === picture.height).toBe(true);
      }),
    );
  });

  test('neither folds nor tears a free shape', async () => {
    const fold = { columns: 3, gap: 10 };
    expect((await of({ fold }, true)).pieces).toHaveLength(1);
    const folded = await of({ fold, border });
    expect(folded.pieces).toHaveLength(3);
    // The second column begins beside the first, its rows 67 and on at the top.
    expect(onWhole(folded, { x: 0, y: 70 })).toEqual({ x: 10 + 300 + 20 + 10, y: 10 + 3 });
  });
});

describe('a run of colours', () => {
  const at = (data: Uint8ClampedArray, i: number) => [...data.subarray(i * 4, i * 4 + 4)];
  const run = (way: 'down' | 'across' | 'slant') =>
    gradient({ width: 4, height: 4 }, ['#000000', '#FF8040'], way);
  // At the middle of each quarter: ⅛, ⅜, ⅝, ⅞ of the second colour.
  test('goes down or across by equal steps', () => {
    expect([0, 4, 8, 12].map((i) => at(run('down'), i)[0])).toEqual([32, 96, 159, 223]);
    expect([0, 1, 2, 3].map((i) => at(run('across'), i))).toEqual([
      [32, 16, 8, 255],
      [96, 48, 24, 255],
      [159, 80, 40, 255],
      [223, 112, 56, 255],
    ]);
  });
  test('slants from corner to corner', () => {
    const data = run('slant');
    expect(at(data, 1)).toEqual(at(data, 4));
    expect(at(data, 0)[0]).toBeLessThan(at(data, 1)[0] ?? 0);
    expect(Math.abs((at(data, 3)[0] ?? 0) - 128)).toBeLessThanOrEqual(1);
  });
});

describe('the fields of a caption', () => {
  const facts = {
    ...{ title: 'Pond edge', where: '', n: 7, description: 'Frost on the reed.' },
    time: (form: string | undefined) => form ?? 'usual',
  };
  test.each([
    ['{title}', 'Pond edge'],
    ['{n}. {title} · {time}', '7. Pond edge · usual'],
    ['{time:dd.MM.yyyy}', 'dd.MM.yyyy'],
    ['{description}', 'Frost on the reed.'],
    // What has no words takes along what parts it from the rest.
    ['{title} · {where} · {time}', 'Pond edge · usual'],
    ['{where} · {title}', 'Pond edge'],
    ['{title}, {where}', 'Pond edge'],
    ['{where}', ''],
    ['Bed 4\n{where}\n{title}', 'Bed 4\n\nPond edge'],
    ['{colour} {title', '{colour} {title'],
  ])('%j says %j', (text, said) => {
    expect(filledCaption(text, facts)).toBe(said);
  });
  test('a name that looks like a field stays as it is', () => {
    expect(filledCaption('{title}', { ...facts, title: '{where}' })).toBe('{where}');
  });
  test('are known by their names', () => {
    expect([...fieldsIn('{n} {title} {time:yyyy} {nothing}')]).toEqual(['n', 'title', 'time']);
  });
});
