import { beforeAll, expect, test } from '@jest/globals';
import { testShaper } from '@/tests/lib/shaper';
import type { MarkTools } from '../marks/contract';
import { markSchema, type Mark } from '../marks/registry';
import { keptApart } from './blackAndWhite';

let tools: MarkTools;
beforeAll(async () => {
  tools = { shaper: await testShaper() };
});

const line = (id: string, colour: string): Mark =>
  markSchema.parse({
    ...{ id, kind: 'line', from: { x: 10, y: 60 }, to: { x: 90, y: 60 }, bend: null, colour },
    ...{ thickness: 4, heads: 'none', dashed: false },
  });
const pen = (id: string, colour: string): Mark =>
  markSchema.parse({
    ...{ id, kind: 'pen', tip: 'felt', colour, thickness: 4 },
    points: [
      [50, 80, 0.5],
      [90, 90, 0.5],
    ],
  });

let made = 0;
const apart = (...marks: Mark[]) => keptApart(marks, tools, () => `new${(made += 1)}`);
const dashedOf = (marks: readonly Mark[]) =>
  marks.flatMap((mark) => ('dashed' in mark && mark.dashed ? [mark.id] : []));

// 0.2126 r + 0.7152 g + 0.0722 b: #D55E00 is 112.5, #0072B2 94.4, #F0E442 218.9, #000000 0.
test('colours of nearly the same grey are told apart by dashes, others stay as they are', () => {
  const { marks, said } = apart(line('red', '#D55E00'), line('blue', '#0072B2'));
  expect(dashedOf(marks)).toEqual(['blue']);
  expect(said).toBe('1 dashed');
  const far = apart(line('red', '#D55E00'), line('yellow', '#F0E442'), line('ink', '#000000'));
  expect(dashedOf(far.marks)).toEqual([]);
  expect(far.said).toBe('');
});

test('a third of that grey, or one that cannot be dashed, gets a letter beside it', () => {
  const { marks, said } = apart(
    line('red', '#D55E00'),
    line('blue', '#0072B2'),
    line('green', '#008F6A'),
    pen('pen', '#5E5ECC'),
  );
  expect(dashedOf(marks)).toEqual(['blue']);
  const letters = marks.slice(4);
  expect(letters).toMatchObject([
    { kind: 'text', text: 'A' },
    { kind: 'text', text: 'B' },
  ]);
  expect(said).toBe('1 dashed, 2 with a letter');
});

test('all marks of a colour get the same; hidden areas and what is off count for nothing', () => {
  const cover = markSchema.parse({
    ...{ id: 'c', kind: 'cover', x: 0, y: 0, width: 20, height: 20, colour: '#0072B2' },
  });
  const { marks } = apart(
    cover,
    { ...line('off', '#0072B2'), off: true },
    line('red', '#D55E00'),
    line('blue1', '#0072B2'),
    line('blue2', '#0072B2'),
  );
  expect(dashedOf(marks)).toEqual(['blue1', 'blue2']);
  expect(marks).toHaveLength(5);
});
