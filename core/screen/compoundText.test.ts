import { expect, test } from '@jest/globals';
import { compoundText } from './compoundText';

const bytes = (...parts: (string | number[])[]) =>
  Uint8Array.from(
    parts.flatMap((part) => (typeof part === 'string' ? [...Buffer.from(part, 'latin1')] : part)),
  );

const decode = (encoding: string, all: Uint8Array) => new TextDecoder(encoding).decode(all);
const ESC = '\u001b';

// Bytes as libX11’s Xutf8TextListToTextProperty writes them, and as the encoding’s own tables say.
test.each([
  ['as they are', bytes('Beds 3'), 'Beds 3'],
  ['Latin-1', bytes('Caf\u00e9'), 'Café'],
  ['Latin-2', bytes(`${ESC}-B`, [0xb3, 0xf3, 0x64]), 'łód'],
  ['Cyrillic', bytes(`Bed ${ESC}-L`, [0xc0, 0xde, 0xe1]), 'Bed Рос'],
  ['Greek', bytes(`${ESC}-F`, [0xca, 0xde, 0xf0]), 'Κήπ'],
  ['Japanese, lower half', bytes(`${ESC}$(B`, [0x3c, 0x6f], `${ESC}(B 1`), '種 1'],
  ['Japanese, upper half', bytes(`${ESC}$)B`, [0xbc, 0xef]), '種'],
  ['Chinese', bytes(`${ESC}$(A`, [0x56, 0x56]), '种'],
  ['Korean', bytes(`${ESC}$(C`, [0x3e, 0x3e]), '씨'],
  ['UTF-8 in between', bytes(`a ${ESC}%G`, [0xf0, 0x9f, 0x8c, 0xb1], `${ESC}%@ b`), 'a 🌱 b'],
  ['a set nobody knows', bytes(`a${ESC}-Z`, [0xc0], 'b'), 'aÀb'],
  ['cut off in the middle', bytes(`a${ESC}`), 'a'],
])('words %s', (_, written, words) => {
  expect(compoundText(written, decode)).toBe(words);
});
