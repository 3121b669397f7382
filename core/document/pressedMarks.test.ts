import { expect, test } from '@jest/globals';
import { testShaper } from '@/tests/lib/shaper';
import { centre, encloses } from '../geometry/rect';
import { markBounds } from '../marks/registry';
import { limits } from '../values/limits';
import { documentAt } from './atPicture';
import { pressedMarks } from './pressedMarks';
import { untouched } from './view';

const times = Array.from({ length: 60 }, (_, i) => i / 15);
const size = { width: 800, height: 600 };
const seen = { x: 100, y: 50, width: 400, height: 300 };

test('rings around where it was clicked, keys in a corner of what is shown, at their time', async () => {
  const tools = { shaper: await testShaper() };
  const pressed = [
    { at: 1, x: 220, y: 130 },
    { at: 2, key: 'Ctrl+S' },
  ];
  const marks = pressedMarks(pressed, times, { crop: seen });
  const document = { ...untouched(size), marks };
  const at = (picture: number) => documentAt(document, picture, size).marks;
  expect(at(14)).toEqual([]);
  const [ring] = at(15);
  if (!ring) throw new Error('There is no ring.');
  expect(centre(markBounds(ring, tools))).toEqual({ x: 220, y: 130 });
  const [label] = at(30);
  if (!label) throw new Error('There are no keys.');
  expect(label).toMatchObject({ kind: 'text', text: 'Ctrl+S' });
  expect(encloses(seen, markBounds(label, tools))).toBe(true);
  expect(at(59)).toEqual([]);
});

test('of a small part and of more presses than a document holds', () => {
  const many = Array.from({ length: limits.marks + 10 }, (_, i) => ({ at: i / 1_000, x: i, y: 0 }));
  expect(pressedMarks(many, times, { crop: seen })).toHaveLength(limits.marks);
  const [label] = pressedMarks([{ at: 0, key: 'a' }], times, {
    crop: { x: 0, y: 0, width: 6, height: 6 },
  });
  expect(label).toMatchObject({ text: 'a', textSize: 14 });
});

test('a click in a window that was moved is where that lay at first', () => {
  const times = Array.from({ length: 30 }, (_, i) => i / 15);
  const view = {
    crop: { x: 0, y: 0, width: 400, height: 300 },
    follow: [{ from: 10, x: 50, y: 7 }],
  };
  const pressed = [
    { at: 0.2, x: 100, y: 100 },
    { at: 1, x: 150, y: 107 },
  ];
  const [before, after] = pressedMarks(pressed, times, view);
  expect(after).toMatchObject({ x: before && 'x' in before && before.x });
  expect(after).toMatchObject({ y: before && 'y' in before && before.y });
});
