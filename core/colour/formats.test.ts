import { expect, test } from '@jest/globals';
import { converter } from 'culori';
import fc from 'fast-check';
import { parseHex, toHex } from './colour';
import { formatColour, toHsl } from './formats';

// CSS Color Module Level 4 (W3C), §7 and its table of hsl() examples.
test.each([
  ['#FF0000', 'rgb(255 0 0)', 'hsl(0 100% 50%)'],
  ['#00FF00', 'rgb(0 255 0)', 'hsl(120 100% 50%)'],
  ['#0000FF', 'rgb(0 0 255)', 'hsl(240 100% 50%)'],
  ['#000000', 'rgb(0 0 0)', 'hsl(0 0% 0%)'],
  ['#FFFFFF', 'rgb(255 255 255)', 'hsl(0 0% 100%)'],
  ['#663399', 'rgb(102 51 153)', 'hsl(270 50% 40%)'],
])('%s is %s and %s', (hex, rgb, hsl) => {
  expect(formatColour(hex)).toEqual({ hex, rgb, hsl });
});

test('every colour has the hue, saturation and lightness that culori gives it', () => {
  const hsl = converter('hsl');
  const channel = fc.integer({ min: 0, max: 255 });
  fc.assert(
    fc.property(channel, channel, channel, (r, g, b) => {
      const ours = toHsl({ r, g, b });
      const theirs = hsl({ mode: 'rgb', r: r / 255, g: g / 255, b: b / 255 });
      expect(ours.s).toBeCloseTo(theirs.s * 100, 6);
      expect(ours.l).toBeCloseTo(theirs.l * 100, 6);
      expect(ours.h % 360).toBeCloseTo((theirs.h ?? 0) % 360, 6);
      expect(parseHex(toHex({ r, g, b }))).toEqual({ r, g, b });
    }),
  );
});
