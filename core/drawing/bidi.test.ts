import { expect, test } from '@jest/globals';
import { testShaper } from '@/tests/lib/shaper';
import { startsRight, visualRuns } from './bidi';

// Unicode Standard Annex 9, rule L2; digits inside Hebrew keep their own direction.
test('runs of a mixed line stand in the order they are seen', () => {
  expect(visualRuns('abc שלום def').map((run) => [run.text, run.rightToLeft])).toEqual([
    ['abc ', false],
    ['שלום', true],
    [' def', false],
  ]);
  const seen = visualRuns('שלום 12 abc').map((run) => run.text.trim());
  expect(seen.filter(Boolean)).toEqual(['abc', '12', 'שלום']);
  expect(startsRight('שלום')).toBe(true);
  expect(startsRight('abc שלום')).toBe(false);
});

test.each(['Привет', 'Ωμέγα', 'नमस्ते', 'שלום', 'مرحبا', 'สวัสดี', 'Việt', '→'])(
  'the fonts that ship with the app have every letter of %s',
  async (words) => {
    const { glyphs } = (await testShaper()).shape(words, { face: 'hand', weight: 400, size: 20 });
    const missing = (await testShaper()).shape('\u{10FFFD}', {
      face: 'hand',
      weight: 400,
      size: 20,
    }).glyphs[0]?.outline;
    expect(glyphs.length).toBeGreaterThan(0);
    expect(glyphs.some((glyph) => glyph.outline.length > 0 && glyph.outline === missing)).toBe(
      false,
    );
  },
);
