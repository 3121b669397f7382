import { expect, test } from '@jest/globals';
import { addressProblem, pageAddress, pageSchema } from './page';

test.each([
  ['garden.example', 'https://garden.example/'],
  ['  garden.example/seeds list?q=a b ', 'https://garden.example/seeds%20list?q=a%20b'],
  ['garden.example:8443/x', 'https://garden.example:8443/x'],
  ['localhost:4310', 'http://localhost:4310/'],
  ['127.0.0.1/x', 'http://127.0.0.1/x'],
  ['[::1]:80/', 'http://[::1]/'],
  ['localhost.example', 'https://localhost.example/'],
  ['http://garden.example/#beds', 'http://garden.example/#beds'],
  // Other scripts: IDNA, as browsers write it (WHATWG URL).
  ['gärten.example', 'https://xn--grten-gra.example/'],
  ['例え.テスト/道', 'https://xn--r8jz45g.xn--zckzah/%E9%81%93'],
])('“%s” is asked for as %s', (written, href) => {
  expect(addressProblem(written)).toBeNull();
  expect(pageAddress(written)?.href).toBe(href);
});

test.each([
  ['', 'first'],
  ['two words', 'no address'],
  ['https://', 'no address'],
  ['mailto:wren@garden.example', 'http://'],
  ['ftp://garden.example', 'http://'],
  ['view-source:https://garden.example', 'http://'],
  ['https://wren@garden.example', 'leave them out'],
  [`https://garden.example/${'ä'.repeat(8_000)}`, 'at most'],
])('“%s” is not asked for', (written, words) => {
  expect(addressProblem(written)).toContain(words);
  expect(pageSchema.safeParse({ address: written }).success).toBe(false);
});
