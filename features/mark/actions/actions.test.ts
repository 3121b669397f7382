import { beforeEach, describe, expect, test } from '@jest/globals';
import { everyMark } from '@/tests/lib/marks';
import { ids, openTestSession } from '@/tests/lib/session';
import * as changes from '../session/changes';
import * as crop from '../fit/crop';
import { session, shownMarks, update } from '../session/session';
import { useStyles } from '../session/styles';
import { nudge, setOnMark, setNumber, deleteSelected, backToFrame } from './change';
import { chooseTool } from './chooseTool';
import { addInMiddle } from './addInMiddle';
import { duplicateSelected } from './make';
import { shiftInOrder, moveInOrder } from './order';
import { setStyle } from './restyle';
import { select, markById, selectedMarks, marks } from '../session/select';
import { endWords, beginWords } from './words';

const [first, second, third] = ['arrow', 'arrow2', 'arrow3'];
beforeEach(() => openTestSession(everyMark.slice(0, 4)));

describe('order', () => {
  test('forward, back, and to a place; at the ends it stays', () => {
    shiftInOrder('arrow', 1);
    expect(ids()).toEqual([second, first, third, 'line']);
    shiftInOrder('line', 1);
    expect(ids()).toEqual([second, first, third, 'line']);
    moveInOrder('line', 0);
    expect(ids()).toEqual(['line', second, first, third]);
    changes.undo();
    changes.undo();
    expect(ids()).toEqual([first, second, third, 'line']);
  });
});

describe('the selection', () => {
  test('is nudged as one step while the key is held', () => {
    select(['arrow', 'line']);
    for (let i = 0; i < 5; i += 1) nudge({ x: 1, y: 0 });
    expect(markById('line')).toMatchObject({ from: { x: 35, y: 300 } });
    expect(session().history.steps).toHaveLength(1);
    changes.undo();
    expect(markById('line')).toMatchObject({ from: { x: 30, y: 300 } });
  });

  test('locked marks are neither moved, changed nor deleted', () => {
    setOnMark('arrow', { locked: true });
    select(['arrow', 'line']);
    nudge({ x: 10, y: 0 });
    setStyle({ colour: '#000000' });
    setNumber('arrow', 'to.x', 5);
    deleteSelected();
    expect(markById('arrow')).toMatchObject({
      from: { x: 60.5, y: 60 },
      colour: '#D55E00',
      to: { x: 360 },
    });
    expect(ids()).toEqual([first, second, third]);
  });

  test('is duplicated beside itself with ids of its own, unlocked', () => {
    setOnMark('line', { locked: true });
    select(['line']);
    duplicateSelected();
    expect(new Set(ids()).size).toBe(5);
    const [copy] = selectedMarks();
    expect(copy).toMatchObject({ kind: 'line', from: { x: 46, y: 316 } });
    expect(copy?.locked).toBeUndefined();
  });

  test('loses what undo takes away', () => {
    select(['line']);
    duplicateSelected();
    changes.undo();
    expect(session().selection).toEqual([]);
  });
});

describe('settings', () => {
  test('change the selected marks, each by what it has, and are remembered per kind', () => {
    select(['arrow']);
    setStyle({ colour: '#009E73', thickness: 11, textSize: 99 });
    expect(markById('arrow')).toMatchObject({ colour: '#009E73', thickness: 11 });
    expect(markById('arrow')).not.toHaveProperty('textSize');
    expect(useStyles.getState().arrow).toMatchObject({ colour: '#009E73', thickness: 11 });
    expect(useStyles.getState().pen.thickness).toBe(6);
  });

  test('a slider pulled is one step', () => {
    select(['arrow']);
    for (let t = 1; t <= 30; t += 1) setStyle({ thickness: t });
    expect(session().history.steps).toHaveLength(1);
  });
});

describe('the view', () => {
  test('Crop is taken with Enter or another tool, and left with Esc', () => {
    chooseTool('crop');
    crop.setCropping({ x: 10.4, y: -50, width: 200, height: 100 });
    crop.endCrop(false);
    expect(session().history.steps).toHaveLength(0);
    chooseTool('crop');
    crop.setCropping({ x: 10.4, y: -50, width: 200, height: 100 });
    chooseTool('box');
    expect(session().history.document.view.crop).toEqual({ x: 10, y: 0, width: 200, height: 50 });
    expect(session().cropping).toBeNull();
  });

  test('choosing Crop again keeps what was typed', () => {
    chooseTool('crop');
    crop.setCropping({ x: 1, y: 2, width: 30, height: 40 });
    chooseTool('crop');
    expect(session().cropping).toEqual({ x: 1, y: 2, width: 30, height: 40 });
  });

  test('back to the untouched frame is one step', () => {
    crop.setView({ x: 5, y: 5, width: 50, height: 50 });
    backToFrame();
    expect(ids()).toEqual([]);
    expect(session().history.document.view.crop).toEqual({ x: 0, y: 0, width: 600, height: 400 });
    changes.undo();
    expect(ids()).toHaveLength(4);
    expect(session().history.document.view.crop.width).toBe(50);
  });
});

describe('texts', () => {
  test('a new one enters the document with its words, an empty one never', () => {
    addInMiddle('text', { x: 0, y: 0, width: 600, height: 400 });
    expect(session().editing).not.toBeNull();
    expect(ids()).toHaveLength(4);
    const [text] = session().live;
    if (text?.kind !== 'text') throw new Error('no text');
    endWords(text, '   ');
    expect(ids()).toHaveLength(4);
    beginWords(text, true);
    endWords(text, 'Frost');
    expect(marks().at(-1)).toMatchObject({ kind: 'text', text: 'Frost' });
  });

  test('one that is emptied is deleted', async () => {
    await openTestSession(everyMark.filter((m) => m.kind === 'text'));
    const text = markById('text');
    if (text?.kind !== 'text') throw new Error('no text');
    beginWords(text, false);
    endWords(text, '');
    expect(ids()).toEqual(['text2', 'scripts', 'turned-text']);
  });
});

test('live marks stand in for their stored selves, new ones lie on top', () => {
  const arrow = everyMark.find((m) => m.kind === 'arrow');
  if (!arrow) throw new Error('no mark');
  update({
    live: [
      { ...arrow, colour: '#000000' },
      { ...arrow, id: 'new' },
    ],
  });
  const shown = shownMarks(session());
  expect(shown.map((m) => m.id)).toEqual([first, second, third, 'line', 'new']);
  expect(shown[0]).toMatchObject({ colour: '#000000' });
});

test('the part that is shown is what view and sight share, or the view', () => {
  const view = { x: 0, y: 0, width: 100, height: 100 };
  expect(crop.shownPart(view, { x: 50, y: 50, width: 100, height: 100 })).toEqual({
    x: 50,
    y: 50,
    width: 50,
    height: 50,
  });
  expect(crop.shownPart(view, { x: 500, y: 0, width: 10, height: 10 })).toBe(view);
});
