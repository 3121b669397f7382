import { expect, test } from '@jest/globals';
import { fold, LONGEST_TOKEN, sequenceOf, tokensOf, withSlips } from './fold';

test('case, accents and widths of letters do not count; marks of other scripts do', () => {
  expect(fold('Größe')).toBe('grosse');
  expect(fold('CAFÉ')).toBe(fold('cafe\u0301'));
  expect(fold('ＦＵＬＬ')).toBe('full');
  expect(fold('ﬁre')).toBe('fire');
  // In Devanagari the marks are the vowels: without them other words would be the same.
  expect(fold('की')).not.toBe(fold('का'));
  expect(fold('İstanbul')).toBe('istanbul');
});

test('codes, addresses, paths and times part at their signs', () => {
  expect(tokensOf('SX-48-7713-KA')).toEqual(['sx', '48', '7713', 'ka']);
  expect(tokensOf('wren@fernhollow.example,')).toEqual(['wren', 'fernhollow', 'example']);
  expect(tokensOf('/srv/beds/north.png at 09:40')).toEqual([
    ...['srv', 'beds', 'north', 'png', 'at', '09', '40'],
  ]);
  expect(tokensOf('– … ()')).toEqual([]);
  expect(tokensOf('frost ❄ shears')).toEqual(['frost', '❄', 'shears']);
  expect(tokensOf('東京のbeds')).toEqual(['東', '京', 'の', 'beds']);
  expect(sequenceOf(tokensOf('E-207'))).toBe(' e 207 ');
  expect(tokensOf('x'.repeat(8000))).toEqual(['x'.repeat(LONGEST_TOKEN)]);
});

test('one slip of recognition: 0 and O, 1 and l and I, rn and m', () => {
  expect(withSlips('2o7')).toContain('207');
  expect(withSlips('207')).toContain('2o7');
  expect(withSlips('bill')).toEqual(expect.arrayContaining(['bi1l', 'bil1', 'bi1l', 'blll']));
  expect(withSlips('corn')).toContain('com');
  expect(withSlips('com')).toContain('corn');
  expect(withSlips('beds')).toEqual(['beds']);
  expect(withSlips('hedge')[0]).toBe('hedge');
  // Only one slip: two at once would find everything.
  expect(withSlips('o0')).not.toContain('0o');
  expect(withSlips('o'.repeat(5000)).length).toBeLessThan(40);
});
