import { beforeAll, expect, test } from '@jest/globals';
import { testTools } from '@/tests/lib/painting';
import type { PaintTools } from '../marks/contract';
import { fillText, layoutText } from '../drawing/textLayout';
import { textLineAt } from './textLine';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

/** Two lines of words on a ground, as wide as 200 pixels and 120 high. */
function strip(ground: string, ink: string) {
  const { surface, read } = tools.sheet(200, 120);
  surface.fillStyle = ground;
  surface.fillRect(0, 0, 200, 120);
  const font = { face: 'plain', weight: 400, size: 16 } as const;
  const block = layoutText(tools.shaper, 'Pond edge, north\nField maple, gate', font, Infinity, {
    lineSpacing: 2,
  });
  fillText(surface, block, 8, 20, ink);
  return { pixels: read(), lines: block.lines };
}

test.each([
  ['#FFFFFF', '#1C2B2A'],
  ['#1C2B2A', '#FFFFFF'],
  ['#E9EDF2', '#2456A6'],
])('the line of words under the pointer is found on %s', (ground, ink) => {
  const { pixels, lines } = strip(ground, ink);
  for (const line of lines) {
    const baseline = 20 + line.baseline;
    const found = textLineAt(pixels, baseline - 5);
    // From the top of d and l to the foot of g and p: seven tenths above the baseline, two below.
    expect(found?.top).toBeGreaterThanOrEqual(baseline - 13);
    expect(found?.top).toBeLessThanOrEqual(baseline - 10);
    expect(found?.bottom).toBeGreaterThanOrEqual(baseline + 3);
    expect(found?.bottom).toBeLessThanOrEqual(baseline + 6);
  }
});

test('where no words are there is no line', () => {
  const { pixels } = strip('#FFFFFF', '#000000');
  expect(textLineAt(pixels, 110)).toBeNull();
});
