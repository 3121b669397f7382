import { describe, expect, test } from '@jest/globals';
import { formatHex8, parse } from 'culori';
import { randomFrom } from '../random/random';
import { readColour, writeColour } from './typed';

describe('colours as they are written', () => {
  test.each([
    ['#b8472a', '#B8472A', 1],
    ['b8472a', '#B8472A', 1],
    ['#abc', '#AABBCC', 1],
    ['#ABC8', '#AABBCC', 0.53],
    ['#B8472A80', '#B8472A', 0.5],
    [' rgb(184, 71, 42) ', '#B8472A', 1],
    ['184 71 42', '#B8472A', 1],
    ['RGBA(184 71 42 / 50%)', '#B8472A', 0.5],
    ['rgb(184 71 42 / 0,5)', '#B8472A', 0.5],
    ['rgb(100%, 0%, 50%)', '#FF0080', 1],
    ['hsl(12deg 63% 44%)', '#B7462A', 1],
    ['hsla(-348, 63%, 44%, .25)', '#B7462A', 0.25],
    ['hsl(372 63 44)', '#B7462A', 1],
  ])('%s', (text, hex, opacity) => {
    expect(readColour(text)).toEqual({ hex, opacity });
  });

  test.each([
    ['', 'no colour'],
    ['vermillion?', 'no colour'],
    ['#12345', 'no colour'],
    ['#12345g', 'no colour'],
    ['rgb(1 2)', 'no colour'],
    ['rgb(1 2 3', 'no colour'],
    ['rgb(256 0 0)', '255'],
    ['-1 0 0', '255'],
    ['hsl(10 120% 5%)', '100 %'],
    ['hsl(10% 20% 5%)', 'degrees'],
    ['rgb(1 2 3 / 0)', 'least opacity'],
    ['#11223300', 'least opacity'],
    ['rgb(1 2 3 / 120%)', 'from 0 to 1'],
    ['9'.repeat(8_000), 'no colour'],
  ])('%p is told as no colour', (text, words) => {
    const read = readColour(text);
    expect('problem' in read && read.problem).toContain(words);
  });

  // Source: culori, an independent reading of CSS Color Module Level 4.
  test('three hundred colours, each in three ways, are those culori reads', () => {
    const next = randomFrom(31);
    const whole = (most: number) => Math.floor(next() * (most + 1));
    for (let i = 0; i < 100; i += 1) {
      const alpha = (5 + whole(95)) / 100;
      for (const text of [
        `rgb(${whole(255)} ${whole(255)} ${whole(255)} / ${alpha})`,
        `hsla(${whole(720) - 360}, ${whole(100)}%, ${whole(100)}%, ${alpha})`,
        `#${[0, 0, 0].map(() => whole(255).toString(16).padStart(2, '0')).join('')}`,
      ]) {
        const read = readColour(text);
        if (!('hex' in read)) throw new Error(text);
        const other = parse(text);
        if (!other) throw new Error(text);
        const wanted = formatHex8(other).toUpperCase();
        expect([text, writeColour(read.hex, read.opacity).padEnd(9, 'F')]).toEqual([text, wanted]);
      }
    }
  });
});
