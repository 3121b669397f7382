import { expect, test } from '@jest/globals';
import { wcagContrast } from 'culori';
import { contrast, parseHex, readableOn, toHex } from './colour';
import { colourName, markColours } from './markColours';

const rgb = (hex: string) => {
  const colour = parseHex(hex);
  if (!colour) throw new Error(hex);
  return colour;
};

// Source: W3C, WCAG 2.2, definitions of relative luminance and contrast ratio.
test.each([
  ['#000000', 21.0],
  ['#767676', 4.54],
  ['#777777', 4.48],
  ['#FF0000', 4.0],
  ['#0000FF', 8.59],
])('contrast of %s with white is %d', (hex, ratio) => {
  expect(contrast(rgb(hex), rgb('#FFFFFF'))).toBeCloseTo(ratio, 2);
});

// Source: culori, an independent reading of the same definition.
test('contrast agrees with culori on the mark colours', () => {
  for (const a of markColours) {
    for (const b of markColours) {
      expect(contrast(rgb(a.hex), rgb(b.hex))).toBeCloseTo(wcagContrast(a.hex, b.hex), 4);
    }
  }
});

// Source: M. Okabe and K. Ito, Color Universal Design (2008).
test('the mark colours are the published eight', () => {
  const published = [
    '000000',
    'E69F00',
    '56B4E9',
    '009E73',
    'F0E442',
    '0072B2',
    'D55E00',
    'CC79A7',
  ];
  expect(markColours.map((c) => c.hex.slice(1)).sort()).toEqual(published.sort());
  expect(colourName('#d55e00')).toBe('Vermillion');
  expect(colourName('#123456')).toBe('#123456');
});

test('hex is read and written', () => {
  expect(parseHex('#0c6470')).toEqual({ r: 12, g: 100, b: 112 });
  expect(toHex({ r: 12, g: 100, b: 112 })).toBe('#0C6470');
  expect(parseHex('#12345')).toBeNull();
  expect(parseHex('red')).toBeNull();
});

test('ink on a ground is the more readable of the two', () => {
  expect(readableOn('#F0E442')).toBe('#1C2B2A');
  expect(readableOn('#0072B2')).toBe('#FFFFFF');
});

/** The tokens of app/globals.css that carry words, on the grounds they stand on. */
test.each([
  ['#4C5B56', '#E3DED0', 4.5],
  ['#55625D', '#E3DED0', 4.5],
  ['#9A3524', '#FAF8F2', 4.5],
  ['#0C6470', '#DCEBEA', 4.5],
  ['#7C7664', '#E3DED0', 3],
])('%s can be told from %s', (ink, ground, least) => {
  expect(contrast(rgb(ink), rgb(ground))).toBeGreaterThanOrEqual(least);
});
