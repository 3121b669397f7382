import { expect, test } from '@jest/globals';
import { everyMark } from '@/tests/lib/marks';
import { sameDocument } from './sameDocument';
import { untouched } from './view';

const base = { ...untouched({ width: 400, height: 300 }), marks: [...everyMark] };

test('the order of fields and fields without a value make no difference', () => {
  const turned = Object.fromEntries(Object.entries(base).reverse()) as typeof base;
  expect(Object.keys(turned)).not.toEqual(Object.keys(base));
  expect(sameDocument(base, turned)).toBe(true);
  expect(sameDocument(base, { ...structuredClone(base), description: undefined })).toBe(true);
});

test('another value, another order of marks or a mark less does', () => {
  expect(sameDocument(base, { ...base, description: 'Beds' })).toBe(false);
  expect(sameDocument(base, { ...base, marks: [...everyMark].reverse() })).toBe(false);
  expect(sameDocument(base, { ...base, marks: everyMark.slice(1) })).toBe(false);
  const [first, ...rest] = everyMark;
  if (!first) throw new Error('There are no marks.');
  expect(sameDocument(base, { ...base, marks: [{ ...first, id: 'other' }, ...rest] })).toBe(false);
});
