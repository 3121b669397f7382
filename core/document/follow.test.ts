import { expect, test } from '@jest/globals';
import { firstStyles, kindOf, markNames, type Mark } from '../marks/registry';
import { randomFrom } from '../random/random';
import { isSeenAt, documentAt, stillAt } from './atPicture';
import { documentFor, documentSchema, type ShotDocument } from './document';
import { followed, followedBy } from './follow';
import { untouched } from './view';
import type { Follow } from './viewSchema';

const FRAME = { width: 400, height: 300 };
const follow: Follow = [
  { from: 3, x: 20, y: -10 },
  { from: 5, x: 500, y: 0 },
  { from: 9, x: 0, y: 0 },
];
const cropped = (more: Partial<ShotDocument['view']> = {}, marks: Mark[] = []): ShotDocument => ({
  ...untouched(FRAME),
  view: { crop: { x: 100, y: 50, width: 120, height: 80 }, follow, ...more },
  marks,
});
const box = (id: string, time?: Mark['time']): Mark => ({
  ...kindOf('box').create(
    id,
    [
      { x: 110, y: 60 },
      { x: 150, y: 90 },
    ],
    firstStyles.box,
  ),
  ...(time && { time }),
});

test('it lies where it was told last', () => {
  expect([0, 2, 3, 4, 5, 8, 9, 70].map((n) => followedBy(follow, n).x)).toEqual([
    0, 0, 20, 20, 500, 500, 0, 0,
  ]);
  expect(followedBy(undefined, 3)).toEqual({ x: 0, y: 0 });
  expect(followedBy([], 3)).toEqual({ x: 0, y: 0 });
  const next = randomFrom(3);
  for (let round = 0; round < 200; round += 1) {
    const all = Array.from({ length: 12 }, (_, i) => ({
      ...{ from: 4 * i + Math.floor(next() * 4), x: Math.floor(next() * 9), y: i },
    }));
    const picture = Math.floor(next() * 60);
    const plain = all.findLast(({ from }) => from <= picture) ?? { x: 0, y: 0 };
    expect(followedBy(all, picture)).toMatchObject({ x: plain.x, y: plain.y });
  }
});

test('view and marks go with it, the view no further than the frame reaches', () => {
  const document = cropped({}, [box('a'), box('b', { from: 4, to: 6 })]);
  const at = (picture: number) => {
    const { view, marks } = documentAt(document, picture, FRAME);
    expect(documentFor(FRAME).safeParse({ ...document, view, marks }).success).toBe(true);
    return [view, marks.map((mark) => [mark.id, 'x' in mark && mark.x, 'y' in mark && mark.y])];
  };
  expect(at(0)).toEqual([{ crop: { x: 100, y: 50, width: 120, height: 80 } }, [['a', 110, 60]]]);
  expect(at(3)).toEqual([{ crop: { x: 120, y: 40, width: 120, height: 80 } }, [['a', 130, 50]]]);
  expect(at(5)).toEqual([
    { crop: { x: 280, y: 50, width: 120, height: 80 } },
    [
      ['a', 610, 60],
      ['b', 610, 60],
    ],
  ]);
  expect(at(9)).toEqual(at(0));
});

test('a free shape goes with the view', () => {
  const points = [
    { x: 100, y: 50 },
    { x: 220, y: 50 },
    { x: 160, y: 130 },
  ];
  const { view } = followed(cropped({ shape: { kind: 'polygon', points } }), 3, FRAME);
  expect(view.shape).toEqual({
    kind: 'polygon',
    points: points.map(({ x, y }) => ({ x: x + 20, y: y - 10 })),
  });
});

test('where the picture is turned, it goes the turned way', () => {
  const turn = { quarters: 1, mirrored: false, angle: 0 };
  const { view } = followed(cropped({ turn }), 3, FRAME);
  // A quarter clockwise: right is down, up is right.
  expect(view.crop).toMatchObject({ x: 110, y: 70 });
});

test.each(markNames)('a %s goes with what it lies on', (name) => {
  const kind = kindOf(name);
  const path = [
    { x: 110, y: 60 },
    { x: 150, y: 90 },
  ];
  const mark = kind.create('m', path, { ...firstStyles[name] });
  const [moved] = followed(cropped({}, [mark]), 3, FRAME).marks;
  expect(moved).toEqual(kind.move(mark, { x: 20, y: -10 }));
  expect(isSeenAt(mark, 3)).toBe(true);
});

test('what hides lies wherever that may be while it is moved; nothing else does', () => {
  const cover = kindOf('cover').create(
    'secret',
    [
      { x: 110, y: 60 },
      { x: 150, y: 90 },
    ],
    firstStyles.cover,
  );
  const document = cropped({ follow: [{ from: 6, x: 20, y: -10 }] }, [cover, box('a')]);
  const at = (picture: number) =>
    followed(document, picture, FRAME).marks.map((mark) => [mark.id, 'x' in mark && mark.x]);
  const still = [
    ['secret', 110],
    ['a', 110],
  ];
  expect(at(1)).toEqual(still);
  expect(at(2)).toEqual([
    ['secret', 110],
    ['also-0-0', 130],
    ['a', 110],
  ]);
  expect(at(9)).toEqual([
    ['secret', 130],
    ['also-0-0', 110],
    ['a', 130],
  ]);
  expect(at(10)).toEqual([
    ['secret', 130],
    ['a', 130],
  ]);
  expect(documentSchema.safeParse(stillAt(document, 9, FRAME)).success).toBe(true);
});

test('a still keeps where it was, and follows nothing', () => {
  const still = stillAt(cropped({}, [box('a', { from: 2, to: 4 })]), 3, FRAME);
  expect(still.view).toEqual({ crop: { x: 120, y: 40, width: 120, height: 80 } });
  expect(still.marks).toMatchObject([{ id: 'a', x: 130, y: 50 }]);
  expect(still.marks[0]).not.toHaveProperty('time');
});

test.each([
  ['out of order', [follow[1], follow[0]]],
  ['twice at one picture', [follow[0], follow[0]]],
  ['half a pixel', [{ from: 0, x: 0.5, y: 0 }]],
])('%s is refused', (_, odd) => {
  const document = { ...cropped(), view: { ...cropped().view, follow: odd } };
  expect(documentSchema.safeParse(document).success).toBe(false);
});
