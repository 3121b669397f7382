import { expect, test } from '@jest/globals';
import type { ShotDocument } from './document';
import { everyMark } from '@/tests/lib/marks';
import { untouched } from './view';
import { shownChange } from './shownChange';

const base = untouched({ width: 400, height: 300 });
const mark = (kind: string) => {
  const found = everyMark.find((one) => one.kind === kind);
  if (!found) throw new Error(`no ${kind}`);
  return found;
};
const having = (...kinds: string[]): ShotDocument => ({ ...base, marks: kinds.map(mark) });

test('a description changes nothing that is seen', () => {
  expect(shownChange(base, { ...base, description: 'Beds' })).toBe('same');
});

test('what is drawn is read again; what hides or cuts is forgotten first', () => {
  expect(shownChange(base, having('arrow'))).toBe('changed');
  expect(shownChange(base, having('text'))).toBe('changed');
  for (const kind of ['blur', 'blocks', 'cover', 'paintOut']) {
    expect(shownChange(base, having(kind))).toBe('hidden');
    expect(shownChange(having('arrow', kind), having('arrow'))).toBe('hidden');
  }
  const crop = { x: 0, y: 0, width: 200, height: 300 };
  expect(shownChange(base, { ...base, view: { crop } })).toBe('hidden');
});
