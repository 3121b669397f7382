import { expect, test } from '@jest/globals';
import type { FormatFacts } from '@/core/contracts/format';
import { firstRules } from '@/core/contracts/rules';
import { rulesInWords } from './rulesInWords';

const webp: FormatFacts = {
  name: 'webp',
  label: 'WebP',
  note: '',
  mediaType: 'image/webp',
  extension: 'webp',
  transparent: true,
  quality: true,
  facts: true,
  fields: [],
};

test.each([
  [{}, 'PNG'],
  [{ format: 'webp', size: { longest: 640 } }, 'WebP, quality 85, longest side 640 px'],
  [{ size: { width: 600, density: 254 } }, 'PNG, 600 px wide'],
  [{ size: { width: 1200, height: 630, fit: 'pad' } }, 'PNG, 1200 × 630 px'],
  [{ size: { percent: 50 }, maxBytes: 60_000 }, 'PNG, 50 %, at most 60 KB'],
  [{ facts: { words: true, origin: true } }, 'PNG, with address and window'],
  [{ facts: { words: false, origin: false } }, 'PNG, without facts'],
] as const)('%j is said as “%s”', (change, words) => {
  expect(rulesInWords({ ...firstRules, ...change }, [webp])).toBe(words);
});
