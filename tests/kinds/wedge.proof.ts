import { beforeAll, expect, test } from '@jest/globals';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { Tooltip } from 'radix-ui';
import sharp from 'sharp';
import { documentSchema, type ShotDocument } from '@/core/document/document';
import { kindOf, markNames, type MarkName } from '@/core/marks/registry';
import { firstFacts, type FormatName } from '@/core/contracts/format';
import { factsOf } from '@/core/keep/facts';
import { allActions } from '@/features/keys/actions';
import { chooseTool } from '@/features/mark/actions/chooseTool';
import { marks, select, selectedMarks } from '@/features/mark/session/select';
import { redo, undo } from '@/features/mark/session/changes';
import { moveTo, pressHandle, pressOn, releaseAll } from '@/features/mark/gestures/hand';
import { MarkRow } from '@/features/mark/panels/MarkRow';
import { documentPart } from '@/features/mark/session/document';
import { livePart } from '@/features/mark/session/live';
import { session } from '@/features/mark/session/session';
import { toolPart } from '@/features/mark/session/tool';
import { toolGroups } from '@/features/mark/session/tools';
import { markAt } from '@/features/mark/session/marksAt';
import { formats } from '@/server/formats';
import { flatten } from '@/server/paint/flatten';
import { serverShaper } from '@/server/paint/shaper';
import { movedTo, pressAt } from '@/tests/lib/pointer';
import { openTestSession } from '@/tests/lib/session';

/**
 * Run by newKind.test.ts in a copy of the app that has the folder wedge/ and its one line in the list
 * of kinds, and nothing else that is new.
 */
let wedge: MarkName;
const at = (x: number, y: number) => ({ x, y });
const GREEN = '#009E73';

beforeAll(async () => {
  const found = markNames.find((name) => String(name) === 'wedge');
  if (!found) throw new Error('The list has no wedge.');
  wedge = found;
  await openTestSession();
});

const stored = (): ShotDocument => documentSchema.parse(session().history.document);

/** The shot as it leaves in a format. */
async function left(format: FormatName): Promise<Buffer> {
  const white = { create: { width: 600, height: 400, channels: 3 as const, background: '#FFF' } };
  const shot = { frame: await sharp(white).png().toBuffer(), opaque: true, document: stored() };
  const pixels = await flatten(shot, await serverShaper());
  const { provenance, title } = session();
  const facts = factsOf({ title, provenance }, firstFacts);
  const wish = { quality: 90, options: {}, background: '#FFFFFF', facts };
  return Buffer.from(await formats[format].encode({ pixels, shot }, wish));
}

test('its tool stands in the panel and among the keys, beside those of its purpose', () => {
  const point = toolGroups.find(({ title }) => title === 'Point');
  expect(point?.tools.map(({ label }) => label)).toEqual(['Arrow', 'Line', 'Wedge', 'Number']);
  expect(allActions.find(({ label }) => label === 'Wedge')).toMatchObject({ first: 'w w' });
});

test('it is drawn, found under the pointer, selected, resized, undone and done again', () => {
  chooseTool(wedge);
  pressOn(pressAt(at(100, 100)));
  moveTo(movedTo(at(200, 180), { free: true }));
  releaseAll();
  expect(marks()).toMatchObject([{ kind: 'wedge', x: 100, y: 100, width: 100, height: 80 }]);
  expect(marks()).toMatchObject([{ colour: GREEN }]);
  select([]);
  const found = markAt(at(150, 170), 1);
  expect(found?.kind).toBe('wedge');
  select(found ? [found.id] : []);
  const [mark] = selectedMarks();
  if (!mark) throw new Error('Nothing is selected.');
  pressHandle(mark, 'se');
  moveTo(movedTo(at(300, 300), { free: true }));
  releaseAll();
  expect(marks()).toMatchObject([{ width: 200, height: 200 }]);
  undo();
  expect(marks()).toMatchObject([{ width: 100, height: 80 }]);
  redo();
  expect(marks()).toMatchObject([{ width: 200, height: 200 }]);
});

test('it is kept as PNG and as SVG', async () => {
  const { data } = await sharp(await left('png'))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const pixel = (x: number, y: number) => [
    ...data.subarray((y * 600 + x) * 3, (y * 600 + x) * 3 + 3),
  ];
  expect(pixel(120, 280)).toEqual([0, 158, 115]);
  expect(pixel(280, 120)).toEqual([255, 255, 255]);
  const svg = (await left('svg')).toString();
  expect(svg).toContain('<title>Wedge</title>');
  expect(svg).toContain('100 100');
});

test('it is described and listed', () => {
  const [mark] = marks();
  if (!mark) throw new Error('There is no mark.');
  expect(kindOf(mark).describe(mark)).toBe('200 × 200 px');
  select([]);
  // Without a browser a store shows what it held at first.
  for (const { store } of [documentPart, toolPart, livePart]) {
    Object.assign(store.getInitialState(), store.getState());
  }
  const ignored = { measure: () => undefined, onStep: () => undefined, isStop: true };
  const row = createElement(MarkRow, { stored: mark, index: 0, count: 1, top: 0, ...ignored });
  expect(renderToStaticMarkup(createElement(Tooltip.Provider, null, row))).toMatch(
    /Wedge[\s\S]*200 × 200 px/,
  );
});
