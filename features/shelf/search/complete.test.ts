import { expect, test } from '@jest/globals';
import { completions } from './complete';

const known = {
  tag: ['Beds', 'Faults', 'North bank'],
  from: ['Camera'],
  kept: ['Guides'],
  with: ['arrow', 'hidden'],
};
const of = (text: string, at = text.length) => completions(text, at, known);

test('a field proposes what can stand in it', () => {
  expect(of('tag:').map((one) => one.label)).toEqual(['Beds', 'Faults', 'North bank', 'none']);
  expect(of('frost tag:fa')).toEqual([{ text: 'frost tag:Faults ', at: 17, label: 'Faults' }]);
  expect(of('-with:A').map((one) => one.text)).toEqual(['-with:arrow ']);
  expect(of('since:last').map((one) => one.label)).toEqual(['last week', 'last month']);
});

test('what has blanks is put in quotes; what stands behind stays', () => {
  expect(of('tag:nor')[0]?.text).toBe('tag:"North bank" ');
  expect(of('tag:"north b')[0]?.text).toBe('tag:"North bank" ');
  expect(of('tag:be frost', 6)[0]).toEqual({ text: 'tag:Beds frost', at: 9, label: 'Beds' });
});

test('nothing is proposed where nothing is typed of it, or all of it', () => {
  expect(of('tag:beds')).toEqual([]);
  expect(of('frost')).toEqual([]);
  expect(of('12:40')).toEqual([]);
  expect(of('constructor:')).toEqual([]);
  expect(of('tag:beds ')).toEqual([]);
});
