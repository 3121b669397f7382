import { beforeAll, describe, expect, test } from '@jest/globals';
import { testShaper } from '@/tests/lib/shaper';
import type { FontStyle, Shaper } from './shaper';
import { layoutText } from './textLayout';

let shaper: Shaper;
beforeAll(async () => {
  shaper = await testShaper();
});

const font: FontStyle = { face: 'plain', weight: 400, size: 20 };
const textsOf = (text: string, width: number) =>
  layoutText(shaper, text, font, width).lines.map((line) => line.text);

// Unicode Standard Annex 14, §6.1: QU, CL and EX keep to what is before, ID breaks anywhere.
describe('lines break where the standard lets them', () => {
  test('not before a mark that closes, and between ideographs', () => {
    for (const line of textsOf('Is it dry yet ? No ! (not yet) said Wren , again .', 90))
      expect(line).not.toMatch(/^[?!),.]/);
    expect(textsOf('沼地金盞花北岸', 60).length).toBeGreaterThan(1);
  });

  test('not within a number or at a space that binds', () => {
    const bound = textsOf('Bed 12\u00a0m and 3,500\u00a0seeds', 60);
    expect(bound.join('|')).toContain('12\u00a0m');
    expect(bound.join('|')).toContain('3,500');
  });
});

describe('every line', () => {
  const texts = [
    'Cover the north bank before six-thirty tonight, and the pond edge after it.',
    'Aquilegiaaaaaaaaaaaaaaaaaaaaaaaaaaaa is one word',
    'שלום עולם וגם pond edge ועוד מילים',
    'صباح الثلج على ضفة البركة وما بعدها',
    'e\u0301\u0301e\u0301e\u0301e\u0301e\u0301e\u0301e\u0301e\u0301e\u0301e\u0301',
  ];
  test.each(texts)('of “%s” fits, and nothing is lost', (text) => {
    for (const width of [40, 77, 130, 300]) {
      const { lines } = layoutText(shaper, text, font, width);
      for (const { run, text: line } of lines)
        expect(run.advance <= width + 1e-6 || [...line.normalize('NFC')].length === 1).toBe(true);
      const bare = (words: string) => words.replace(/\s/g, '');
      expect(bare(lines.map((line) => line.text).join(''))).toBe(bare(text));
    }
  });
});

describe('the work grows with the length of a text, not with its square', () => {
  /** How many characters were set for a text, however often. */
  const work = (text: string): number => {
    let characters = 0;
    const counting: Shaper = {
      metrics: (style) => shaper.metrics(style),
      pieces: (part, style) => shaper.pieces(part, style),
      shape: (part, style) => {
        characters += part.length;
        return shaper.shape(part, style);
      },
      edges: (part, style) => {
        characters += part.length;
        return shaper.edges(part, style);
      },
    };
    layoutText(counting, text, font, 300);
    return characters;
  };

  test.each([
    ['a word', 'w'.repeat(20_000)],
    ['words', 'pond edge '.repeat(2_000)],
    ['spaces', `${' '.repeat(19_999)}x`],
    ['marks', `e${'\u0301'.repeat(19_999)}`],
    ['hyphens', '-'.repeat(20_000)],
    ['ideographs', '沼'.repeat(20_000)],
  ])('%s', (_, text) => {
    expect(work(text)).toBeLessThanOrEqual(text.length * 6);
  });

  test('and a word of 20 000 characters takes no longer than as much in words', () => {
    const time = (text: string) => {
      const begun = performance.now();
      layoutText(shaper, text, { ...font, size: 20 + Math.random() }, 300);
      return performance.now() - begun;
    };
    time('warm '.repeat(4_000));
    const [words, word] = [time('pond edge '.repeat(2_000)), time('w'.repeat(20_000))];
    expect(word / words).toBeLessThan(8);
  });
});
