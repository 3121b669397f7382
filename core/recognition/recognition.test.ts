import { describe, expect, test } from '@jest/globals';
import { passesMod10, passesMod97 } from './checks';
import { readBlocks } from './blocks';
import { privateSpans } from './patterns';
import { countByKind, merged, privateThings } from './privateThings';
import { boxOf, lineText, wordsWithin, type Line } from './words';

describe('checks', () => {
  // Public test numbers of the payment industry; ISO/IEC 7812-1 annex B.
  test.each(['4242424242424242', '5555555555554444', '378282246310005', '6011111111111117'])(
    '%s passes mod 10',
    (number) => {
      expect(passesMod10(number)).toBe(true);
    },
  );
  test('one digit off does not', () => {
    expect(passesMod10('4242424242424241')).toBe(false);
    expect(passesMod10('4242 4242')).toBe(false);
    expect(passesMod10('')).toBe(false);
  });

  // Examples of the IBAN registry (ISO 13616): Germany, France.
  test.each(['DE89370400440532013000', 'FR1420041010050500013M02606'])(
    '%s passes mod 97',
    (iban) => {
      expect(passesMod97(iban)).toBe(true);
    },
  );
  test('two digits exchanged do not', () => {
    expect(passesMod97('DE89370400440532013003')).toBe(false);
    expect(passesMod97('DE98370400440532013000')).toBe(false);
    expect(passesMod97('89DE370400440532013000')).toBe(false);
  });
});

const found = (text: string) =>
  privateSpans(text).map(({ kind, start, end }) => [kind, text.slice(start, end)]);

describe('patterns', () => {
  test.each([
    ['email', 'wren@fernhollow.example'],
    ['email', 'sorrel.lark+beds@garden.fernhollow.example'],
    ['email', 'wren©fernhollow.example'],
    ['email', 'wren@ fernhollow. example'],
    ['card', '4242 4242 4242 4242'],
    ['card', '4012888888881881'],
    ['card', '5105-1051-0510-5100'],
    ['card', '4242 4242 4242 42l2'],
    ['phone', '+44 1632 960 123'],
    ['phone', '(01632) 960987'],
    ['phone', '(555) 555-0199'],
    ['phone', '202-555-0143'],
    ['iban', 'DE89 3704 0044 0532 0130 00'],
    ['iban', 'DE89370400440532013000'],
    ['iban', 'DEB9 3704 0044 0532 0130 00'],
    ['ip', '192.0.2.17'],
    ['ip', '198.51.100.203'],
    ['ip', '2001:db8:85a3::8a2e:370:7334'],
    ['ip', '198.51100.203'],
    ['ip', '192.0.217'],
    ['ip', '2001:db8:85a3: :8a2e:370:7334'],
    ['ip', '2001:db8:85a3::8a2€:370:7334'],
    ['ip', 'fe80:1ff:fe23:4567:890a'],
    ['key', '9f86d081884c7d659a2feaa0c55ad015'],
    ['key', 'fh_h4Pq8sTzWm2LkX9vRb7NcYd3EgJa'],
  ])('%s: %s', (kind, text) => {
    expect(found(`Take ${text} with you`)).toEqual([[kind, text]]);
  });

  test.each([
    'Order SX-48-7713-KA',
    '2026-11-23 14:02:11',
    '2026-11-23T14:02:11Z',
    '23.11.2026',
    '23.11.2026 und 2026.11.23',
    '1 204 packets, 12 345.60',
    'Version 3.14.2',
    'Ranunculus acris subsp. frieseanus',
    'Chrysosplenium-oppositifolium',
    'https://fernhollow.example/register/beds',
    '999.300.2.1',
    '0000 0000 0000 0000',
    'at 06:00 – 06:40',
  ])('%s is nothing private', (text) => {
    expect(found(text)).toEqual([]);
  });

  test('an account number is not also a phone number', () => {
    expect(found('DE89 3704 0044 0532 0130 00').map(([kind]) => kind)).toEqual(['iban']);
  });

  test('several on one line are told apart', () => {
    expect(found('wren@fernhollow.example, +44 1632 960 123, 192.0.2.1')).toEqual([
      ['email', 'wren@fernhollow.example'],
      ['phone', '+44 1632 960 123'],
      ['ip', '192.0.2.1'],
    ]);
  });
});

const word = (text: string, x: number, width = text.length * 10) => ({
  text,
  box: { x, y: 20, width, height: 14 },
});

describe('places', () => {
  const line: Line = [word('Mail:wren@fernhollow.example', 100, 280), word('now', 390)];

  test('of a part of a word is a part of its box', () => {
    const read = lineText(line);
    const [span] = privateSpans(read.text);
    const box = boxOf(line, read, span?.start ?? 0, span?.end ?? 0);
    expect(box.x).toBeCloseTo(145);
    expect(box.x + box.width).toBeCloseTo(380);
  });

  test('words that nearly touch are one', () => {
    expect(lineText([word('abc', 0), word('def', 31)]).text).toBe('abcdef');
    expect(lineText([word('abc', 0), word('def', 38)]).text).toBe('abc def');
  });

  test('a key that was read in pieces is found whole', () => {
    const pieces = [word('uQWpj', 0), word('feRGehF2fwuuD0F8', 54), word('MNt87jtNs', 218)];
    const things = privateThings([pieces]);
    expect(things).toHaveLength(1);
    expect(things[0]?.box.width).toBeGreaterThan(300);
  });

  test('two passes over one picture give one finding, of another place a second', () => {
    const at = (x: number, text: string) => ({
      kind: 'ip' as const,
      text,
      box: { x, y: 0, width: 80, height: 16 },
    });
    const all = merged([[at(0, '192.0.2.1')], [at(2, '192.0.2.17'), at(300, '192.0.2.9')]]);
    expect(all.map((t) => t.text)).toEqual(['192.0.2.17', '192.0.2.9']);
    expect(countByKind(all)).toEqual([['ip', 2]]);
  });

  test('the words of a region come in reading order, line by line', () => {
    const paragraphs = [
      [[word('Sea', 0), word('holly', 40), word('2.40', 300)]],
      [[word('Cowslip', 0)]],
    ];
    expect(wordsWithin(paragraphs, { x: 0, y: 0, width: 200, height: 100 })).toBe(
      'Sea holly\n\nCowslip',
    );
  });

  test('what the recogniser answers is put into pixels of the picture', () => {
    const bbox = { x0: 20, y0: 40, x1: 60, y1: 64 };
    const answer = [
      {
        paragraphs: [
          {
            lines: [
              {
                words: [
                  { text: 'Fern', bbox },
                  { text: ' ', bbox },
                ],
              },
            ],
          },
        ],
      },
    ];
    expect(readBlocks(answer, 2, { x: 5, y: 0 })).toEqual([
      [[{ text: 'Fern', box: { x: 15, y: 20, width: 20, height: 12 } }]],
    ]);
    expect(readBlocks(null, 1)).toEqual([]);
    expect(() => readBlocks([{ words: 3 }], 1)).toThrow();
  });
});
