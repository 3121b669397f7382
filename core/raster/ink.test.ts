import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { untouched } from '../document/view';
import { paintedParts } from '../paint/parts';
import { kindOf, type Mark } from '../marks/registry';
import { randomFrom } from '../random/random';
import { flattenClipPart, inkOn } from '@/server/paint/clipPixels';
import { serverShaper } from '@/server/paint/shaper';
import { anyMark } from '@/tests/lib/anyMark';
import { inkOf, layInk, type Trial } from './ink';
import { cutPlanar, planarOf, planarPixels, putPlanar, rgbaOf, type PlanarPixels } from './planar';
import type { RgbaPixels } from './pixels';
import type { Planes } from './yCbCr';

const SIZE = { width: 220, height: 160 };
const MOST = 1_000_000;

/** Soft colours: where one is for four pixels that no screen can show, it matters who rounds it first. */
function frameOf(seed: number, planes: Planes): PlanarPixels {
  const next = randomFrom(seed);
  const [red, green, blue] = [next(), next(), next()];
  const data = new Uint8ClampedArray(SIZE.width * SIZE.height * 4);
  for (let i = 0; i < data.length; i += 4) {
    const [x, y] = [(i / 4) % SIZE.width, Math.floor(i / 4 / SIZE.width)];
    data.set([60 + x / 3 + 40 * red, 60 + y / 3 + 40 * green, 180 - x / 3 + 40 * blue, 255], i);
  }
  return planarOf({ ...SIZE, data }, planes);
}

const allPlanes = fc.record({
  ...{ half: fc.boolean(), full: fc.boolean() },
  matrix: fc.constantFrom('bt709', 'bt601'),
}) as fc.Arbitrary<Planes>;

test('laid as ink a mark is what it is painted, to a rounding; what looks at the picture never is ink', async () => {
  const shaper = await serverShaper();
  const laid = new Set<string>();
  const agrees = (mark: Mark, planes: Planes, seed: number): void => {
    const step = planes.half ? 2 : 1;
    const document = { ...untouched(SIZE), marks: [mark] };
    const [part] = paintedParts(document, { shaper }, step) ?? [];
    if (!part) return;
    const ink = part.mayBeInk ? inkOn(part, step, shaper) : null;
    const kind = kindOf(mark);
    const looks = 'hide' in kind || 'reads' in kind || 'reach' in kind;
    expect(part.mayBeInk).toBe(!looks);
    if (!ink) return;
    laid.add(mark.kind);
    const frame = frameOf(seed, planes);
    const painted = planarPixels(SIZE, planes, frame.data.slice());
    putPlanar(
      painted,
      flattenClipPart(cutPlanar(frame, part.needs), part, shaper) as PlanarPixels,
      part.part,
    );
    layInk(frame, ink, part.part);
    const [one, other] = [rgbaOf(frame).data, rgbaOf(painted).data];
    const off = one.reduce(
      (most, value, i) => Math.max(most, Math.abs(value - (other[i] ?? 0))),
      0,
    );
    expect(off).toBeLessThanOrEqual(6);
  };
  fc.assert(fc.property(anyMark, allPlanes, fc.integer(), agrees), { numRuns: 150 });
  // What is drawn by chance may leave one out.
  for (const kind of ['arrow', 'pen', 'highlighter', 'box']) {
    const ofKind = anyMark.filter((mark) => mark.kind === kind);
    fc.assert(fc.property(ofKind, allPlanes, fc.integer(), agrees), { numRuns: 15 });
    expect(laid).toContain(kind);
  }
});

const size = { width: 2, height: 1 };
const both = (...values: number[]): RgbaPixels => ({
  ...size,
  data: Uint8ClampedArray.from(values.flatMap((value) => [value, value, value, 255])),
});
const trial: Trial = {
  ...{
    onBlack: both(0, 60),
    onWhite: both(255, 187),
    onOthers: both(80, 110),
    others: both(80, 100),
  },
};

test('what covers half is laid half; what is not touched stays', () => {
  const ink = inkOf(trial, 1, MOST);
  expect(ink && [...ink.at]).toEqual([1, 0]);
  const planes: Planes = { half: false, full: true, matrix: 'bt709' };
  const pixels = planarOf(both(200, 200), planes);
  if (ink) layInk(pixels, ink, { x: 0, y: 0 });
  expect([...rgbaOf(pixels).data].filter((_, i) => i % 4 === 0)).toEqual([200, 160]);
});

test('what is another over other pixels, or touches too many, is no ink', () => {
  expect(inkOf({ ...trial, onOthers: both(80, 130) }, 1, MOST)).toBeNull();
  expect(inkOf({ ...trial, onOthers: both(90, 110) }, 1, MOST)).toBeNull();
  expect(inkOf(trial, 1, 0)).toBeNull();
});
