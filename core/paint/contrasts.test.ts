import { beforeAll, describe, expect, test } from '@jest/globals';
import { everyMark } from '@/tests/lib/marks';
import { testTools } from '@/tests/lib/painting';
import { contrast, parseHex } from '../colour/colour';
import type { PaintTools } from '../marks/contract';
import { markSchema, type Mark } from '../marks/registry';
import { withHalo } from './standsOut';
import { contrastsBelow } from './contrasts';
import type { Surface } from '../drawing/surface';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

const size = { width: 600, height: 400 };
const plain = (colour: string) => (to: Surface) => {
  to.fillStyle = colour;
  to.fillRect(0, 0, size.width, size.height);
};
const on = (ground: string, marks: readonly Mark[], ids = marks.map((m) => m.id)) =>
  contrastsBelow(
    {
      ...{ marks, tools, pictures: undefined, drawFrame: plain(ground) },
      view: { crop: { x: 0, y: 0, ...size } },
    },
    new Set(ids),
  );
const box = (id: string, more: object): Mark =>
  markSchema.parse({
    ...{ id, kind: 'box', x: 100, y: 100, width: 200, height: 100 },
    ...{ colour: '#000000', outline: 6, ...more },
  });
const ratio = (a: string, b: string): number => {
  const [one, other] = [parseHex(a), parseHex(b)];
  if (!one || !other) throw new Error('no colours');
  return contrast(one, other);
};

describe('contrasts with what is below', () => {
  // Source: W3C, WCAG 2.2, definition of contrast ratio.
  test.each(['#FFFFFF', '#D55E00', '#101010'])('of a box on plain %s', (ground) => {
    expect(on(ground, [box('a', { colour: '#0072B2' })]).get('a')).toBeCloseTo(
      ratio('#0072B2', ground),
      5,
    );
  });

  test('of one that lets half shine through: that of what is seen of it', () => {
    const half = on('#FFFFFF', [box('a', { opacity: 0.5 })]).get('a');
    expect(half).toBeCloseTo(ratio('#808080', '#FFFFFF'), 1);
  });

  test('each is held against those below it, with the halo they get, and not against those above', () => {
    const marks = [
      box('low', { fill: '#0072B2', colour: '#0072B2' }),
      box('high', { x: 120, y: 120, width: 100, height: 50, colour: '#0072B2' }),
    ];
    const found = on('#FFFFFF', marks);
    expect(found.get('low')).toBeCloseTo(ratio('#0072B2', '#FFFFFF'), 5);
    expect(found.get('high')).toBeCloseTo(1, 5);
    expect(withHalo(marks[1] as Mark, found.get('high') ?? null)).toMatchObject({
      halo: '#FFFFFF',
    });
  });

  test('all marks at once are as each alone, once they have their halos', () => {
    // A Close-up shows others as they were before they got theirs.
    let marks: readonly Mark[] = everyMark.filter((mark) => mark.kind !== 'closeUp');
    const found = on('#C8B88A', marks);
    marks = marks.map((mark) =>
      found.has(mark.id) ? withHalo(mark, found.get(mark.id) ?? null) : mark,
    );
    expect([...found.values()].filter((value) => value !== null).length).toBeGreaterThan(30);
    for (const mark of marks) {
      const alone = on('#C8B88A', marks, [mark.id]).get(mark.id) ?? null;
      // Half-covered pixels at the edge of a filling are covered once more for each mark above it.
      const both = [alone, found.get(mark.id) ?? null];
      if (both.includes(null)) expect([mark.id, ...both]).toEqual([mark.id, null, null]);
      else expect(Math.abs((alone ?? 0) / (found.get(mark.id) ?? 0) - 1)).toBeLessThan(0.05);
    }
  });

  test('what is hidden below a mark counts as it is filled, not as it was', () => {
    const cover = markSchema.parse({
      ...{ id: 'c', kind: 'cover', x: 50, y: 50, width: 400, height: 300, colour: '#FFFFFF' },
    });
    expect(on('#000000', [cover, box('a', {})]).get('a')).toBeCloseTo(21, 3);
  });

  test('one outside the view, one that is no colour: none', () => {
    const found = on('#FFFFFF', [
      box('far', { x: 5_000 }),
      ...everyMark.filter((m) => m.kind === 'dim'),
    ]);
    expect([...found.values()].every((value) => value === null)).toBe(true);
  });
});
