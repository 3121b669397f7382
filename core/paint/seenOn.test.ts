import { beforeAll, expect, test } from '@jest/globals';
import { testShaper } from '@/tests/lib/shaper';
import type { Shaper } from '../drawing/shaper';
import { parts, type Surround } from '../finish/surround/surround';
import { seenOnWhole } from './seenOn';

let shaper: Shaper;
beforeAll(async () => {
  shaper = await testShaper();
});

const view = { crop: { x: 40, y: 30, width: 300, height: 200 } };
const word = { x: 10, y: 150, width: 60, height: 12 };
const seen = (surround: Surround) => seenOnWhole({ view, finish: { surround } }, [word], shaper);

test('of a bare view it is what it is', () => {
  expect(seenOnWhole({ view }, [word], shaper)).toBeNull();
  expect(seenOnWhole({ view, finish: { adjust: { on: 'all', grey: 100 } } }, [word], shaper)).toBe(
    null,
  );
});

test('a border and room move a word, columns put it at the top of the second', () => {
  const border = { ...parts.border.first, width: 10 };
  expect(seen({ border, background: { ...parts.background.first, room: 40 } })).toEqual({
    width: 400,
    height: 300,
    boxes: [
      { ...word, x: 60, y: 200, width: expect.closeTo(60, 1), height: expect.closeTo(12, 1) },
    ],
  });
  expect(seen({ fold: { columns: 2, gap: 20 } })?.boxes[0]).toMatchObject({ x: 330, y: 50 });
});

test('tilted, a word is seen within the picture, smaller where it is further away', () => {
  const { boxes, width, height } = seen({ tilt: { across: 40, up: 0 } }) ?? {
    ...{ boxes: [], width: 0, height: 0 },
  };
  const [box] = boxes;
  expect(box?.x).toBeGreaterThan(0);
  expect((box?.x ?? 0) + (box?.width ?? 0)).toBeLessThan(width / 2);
  expect((box?.y ?? 0) + (box?.height ?? 0)).toBeLessThan(height);
});

test('room beside the crop makes the view larger; words are counted from its corner', () => {
  const room = { top: 20, right: 0, bottom: 0, left: 15, colour: '#FFFFFF' };
  expect(seenOnWhole({ view: { ...view, room } }, [word], shaper)).toEqual({
    width: 315,
    height: 220,
    boxes: [word],
  });
});
