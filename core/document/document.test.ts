import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { documentFor, documentSchema, type ShotDocument } from './document';
import { partOrder } from '../finish/surround/surround';
import { stepSchema } from './steps';
import { everyMark } from '@/tests/lib/marks';
import { cropInside, untouched } from './view';
import { canRedo, canUndo, change, changeOn, redo, startHistory, undo } from './history';

const frame = { width: 600, height: 400 };
const start = startHistory(untouched(frame));
const add = (i: number) => (draft: ShotDocument) => {
  const mark = everyMark[i];
  if (mark) draft.marks.push(structuredClone(mark));
};

test('the example of docs/api.md is a document', () => {
  const api = readFileSync('docs/api.md', 'utf8');
  const example = /## Document[^]*?```json\n([^]*?)```/.exec(api)?.[1] ?? '';
  const read = documentSchema.safeParse(JSON.parse(example));
  expect(read.error?.issues).toBeUndefined();
  expect(Object.keys(read.data?.finish?.surround ?? {}).sort()).toEqual([...partOrder].sort());
});

describe('history', () => {
  test('goes back and forth to the very same documents', () => {
    let h = start;
    const seen = [h.document];
    for (let i = 0; i < everyMark.length; i += 1) {
      h = change(h, 'add', add(i));
      seen.push(h.document);
    }
    for (const document of [...seen].reverse().slice(1)) {
      h = undo(h);
      expect(h.document).toEqual(document);
    }
    expect(canUndo(h)).toBe(false);
    for (const document of seen.slice(1)) {
      h = redo(h);
      expect(h.document).toEqual(document);
    }
    expect(canRedo(h)).toBe(false);
  });

  test('a change after undo drops what was undone', () => {
    const two = change(change(start, 'a', add(0)), 'b', add(1));
    const other = change(undo(two), 'c', add(2));
    expect(other.steps.map((s) => s.label)).toEqual(['a', 'c']);
    expect(canRedo(other)).toBe(false);
  });

  test('what changes nothing is no step', () => {
    expect(change(start, 'nothing', () => undefined)).toBe(start);
  });

  test('joined changes are one step', () => {
    const move = (x: number) => (draft: ShotDocument) => {
      const [mark] = draft.marks;
      if (mark?.kind === 'box') mark.x += x;
    };
    let h = change(start, 'add', add(4));
    for (let i = 0; i < 10; i += 1) h = (i ? changeOn : change)(h, 'move', move(1));
    expect(h.steps).toHaveLength(2);
    const before = undo(h).document.marks[0];
    expect(before?.kind === 'box' && before.x).toBe(100.5);
    expect(h.document.marks[0]).toMatchObject({ x: 110.5 });
  });

  test('steps survive being stored as JSON', () => {
    const h = change(change(start, 'add', add(0)), 'view', (d) => void (d.view.crop.width = 100));
    const steps = h.steps.map((step) => stepSchema.parse(JSON.parse(JSON.stringify(step))));
    expect(undo({ ...h, steps }).document).toEqual(undo(h).document);
  });
});

describe('documents', () => {
  const whole = { ...untouched(frame), marks: structuredClone([...everyMark]) };

  test('every kind of mark goes round through JSON unchanged', () => {
    expect(documentSchema.parse(JSON.parse(JSON.stringify(whole)))).toEqual(whole);
  });

  const broken: [string, (d: Record<string, never> & ShotDocument) => void][] = [
    ['NaN', (d) => Object.assign(d.marks[0] ?? {}, { from: { x: NaN, y: 0 } })],
    ['a huge number', (d) => Object.assign(d.marks[0] ?? {}, { from: { x: 1e12, y: 0 } })],
    ['an unknown kind', (d) => Object.assign(d.marks[0] ?? {}, { kind: 'spiral' })],
    ['an unknown field', (d) => Object.assign(d.marks[0] ?? {}, { script: 'x' })],
    ['a colour that is none', (d) => Object.assign(d.marks[0] ?? {}, { colour: 'url(#x)' })],
    ['two marks of one id', (d) => Object.assign(d.marks[1] ?? {}, { id: d.marks[0]?.id })],
    ['U+0000 in a text', (d) => Object.assign(d.marks[11] ?? {}, { text: 'a\u0000b' })],
    ['half a surrogate pair', (d) => Object.assign(d.marks[11] ?? {}, { text: 'a\ud83cb' })],
    [
      'a view of no size',
      (d) => Object.assign(d.view, { crop: { x: 0, y: 0, width: 0, height: 5 } }),
    ],
    ['a version of tomorrow', (d) => Object.assign(d, { version: 99 })],
  ];
  test.each(broken)('%s is refused', (_, spoil) => {
    const copy = structuredClone(whole) as Record<string, never> & ShotDocument;
    spoil(copy);
    expect(documentSchema.safeParse(copy).success).toBe(false);
  });

  test('a view outside the frame is refused', () => {
    const wide = { ...whole, view: { crop: { x: 1, y: 0, width: 600, height: 400 } } };
    expect(documentFor(frame).safeParse(wide).success).toBe(false);
    expect(documentFor(frame).safeParse(whole).success).toBe(true);
  });

  test('any rectangle becomes a possible view', () => {
    expect(cropInside({ x: -50, y: 10.4, width: 100, height: 20 }, frame)).toEqual({
      x: 0,
      y: 10,
      width: 50,
      height: 20,
    });
    expect(cropInside({ x: 5000, y: 0, width: 10, height: 10 }, frame)).toEqual({
      x: 599,
      y: 0,
      width: 1,
      height: 10,
    });
  });
});
