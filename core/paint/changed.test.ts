import { beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { everyMark } from '@/tests/lib/marks';
import { onChequer, testTools } from '@/tests/lib/painting';
import type { PaintTools } from '../marks/contract';
import { kindOf, type Mark } from '../marks/registry';
import { paintMark } from './paintMark';
import { contains, outerPixels } from '../geometry/rect';
import { changedRegion } from './changed';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

const SIZE = { width: 640, height: 420 };

/** The painted pixels, four bytes each in one number. */
function painted(marks: readonly Mark[]): Uint32Array {
  const { surface, scene } = onChequer(marks, SIZE, tools);
  scene.drawHidden(surface);
  for (const mark of marks) paintMark(surface, mark, tools, scene);
  return new Uint32Array(surface.getImageData(0, 0, SIZE.width, SIZE.height).data.buffer);
}

const few = fc.shuffledSubarray([...everyMark], { minLength: 1, maxLength: 6 });

test('outside the changed region nothing changes, whatever is added, taken away or moved', () => {
  fc.assert(
    fc.property(few, fc.nat(5), fc.constantFrom('add', 'remove', 'move'), (marks, at, how) => {
      const index = at % marks.length;
      const one = marks[index];
      if (!one) return;
      const without = marks.filter((mark) => mark !== one);
      const moved = marks.map((m) => (m === one ? kindOf(m).move(m, { x: 31, y: -14 }) : m));
      const [before, after] =
        how === 'add' ? [without, marks] : how === 'remove' ? [marks, without] : [marks, moved];
      const region = changedRegion(before, after, tools);
      // Everything is asked for only where the mark changes the whole view.
      expect([one.kind, region === null]).toEqual([one.kind, kindOf(one).everywhere === true]);
      if (!region) return;
      const within = outerPixels(region);
      const [a, b] = [painted(before), painted(after)];
      for (let i = 0; i < a.length; i += 1) {
        if (a[i] === b[i]) continue;
        const p = { x: i % SIZE.width, y: Math.floor(i / SIZE.width) };
        if (!contains(within, p)) throw new Error(`${how} ${one.id} changes ${p.x}, ${p.y}`);
      }
    }),
    { numRuns: 60 },
  );
});

test('a new order, and marks that change the whole view, ask for everything', () => {
  const [a, b] = everyMark;
  const dim = everyMark.find((mark) => mark.kind === 'dim');
  if (!a || !b || !dim) throw new Error('marks are missing');
  expect(changedRegion([a, b], [b, a], tools)).toBeNull();
  expect(changedRegion([a], [a, dim], tools)).toBeNull();
  expect(changedRegion([a, b], [a, b], tools)).toMatchObject({ width: 0, height: 0 });
});

test('a name and a lock are not seen: nothing is painted anew', () => {
  const renamed = everyMark.map((mark, i) =>
    i === 3 ? { ...mark, name: 'New', locked: true } : mark,
  );
  expect(changedRegion(everyMark, renamed, tools)).toMatchObject({ width: 0, height: 0 });
  const off = everyMark.map((mark, i) => (i === 3 ? { ...mark, off: true } : mark));
  expect(changedRegion(everyMark, off, tools)?.width).toBeGreaterThan(0);
});
