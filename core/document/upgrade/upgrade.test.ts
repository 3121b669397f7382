import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import { documentSchema } from '../document';
import { redo, undo, type History } from '../history';
import { stepSchema } from '../steps';
import { DOCUMENT_VERSION } from '../version';
import { isNewer, upgradedDocument, upgradedStep } from './upgrade';

/** What each version stored: a document with every kind of mark, and the steps that led to it. */
const exampleSchema = z.object({
  document: z.json(),
  steps: z.array(z.json()),
  position: z.int(),
});
const example = (version: number) =>
  exampleSchema.parse(
    JSON.parse(readFileSync(`core/document/upgrade/examples/${version}.json`, 'utf8')),
  );
const versions = Array.from({ length: DOCUMENT_VERSION }, (_, i) => i + 1);

const historyOf = (version: number): History => {
  const { document, steps, position } = example(version);
  return {
    document: documentSchema.parse(document),
    steps: steps.map((step) => stepSchema.parse(step)),
    position,
  };
};

/** The documents from the first to the last, by undoing all and doing it again. */
function walked(history: History): unknown[] {
  let h = history;
  while (h.position > 0) h = undo(h);
  const seen: unknown[] = [h.document];
  while (h.position < h.steps.length) {
    h = redo(h);
    seen.push(h.document);
  }
  return seen;
}

describe.each(versions)('version %i', (version) => {
  test('is read as this version, whole', () => {
    const { document } = historyOf(version);
    expect(document).toMatchObject({ version: DOCUMENT_VERSION });
    expect(document.marks).toHaveLength(78);
    expect(JSON.stringify(document)).not.toContain('"plain":');
    expect(document.marks.find((mark) => mark.id === 'box')).toMatchObject({ standsOut: false });
    expect(document.marks.find((mark) => mark.id === 'arrow')).not.toHaveProperty('standsOut');
  });

  test('is led back to its beginning and forth by its steps, through sound documents', () => {
    const history = historyOf(version);
    const seen = walked(history);
    expect(seen).toHaveLength(10);
    expect(seen[history.position]).toEqual(history.document);
    for (const document of seen) expect(documentSchema.parse(document)).toEqual(document);
  });

  test('comes to the same documents as every other version', () => {
    expect(walked(historyOf(version))).toEqual(walked(historyOf(DOCUMENT_VERSION)));
  });
});

test('steps of one field and of a whole document are upgraded, too', () => {
  const marks = [{ id: 'a', kind: 'box', plain: true }];
  const patches = [
    { op: 'add', path: ['marks', 0, 'plain'], value: true },
    { op: 'replace', path: ['marks', 0, 'x'], value: 4 },
    { op: 'replace', path: [], value: { version: 1, marks } },
    { op: 'replace', path: ['marks', 'length'], value: 3 },
  ];
  const inverse = [{ op: 'remove', path: ['marks', 0, 'plain'] }];
  expect(upgradedStep({ label: 'Look', patches, inverse })).toEqual({
    version: 6,
    label: 'Look',
    patches: [
      { op: 'add', path: ['marks', 0, 'standsOut'], value: false },
      patches[1],
      {
        op: 'replace',
        path: [],
        value: { version: 6, marks: [{ id: 'a', kind: 'box', standsOut: false }] },
      },
      patches[3],
    ],
    inverse: [{ op: 'remove', path: ['marks', 0, 'standsOut'] }],
  });
});

test.each([
  ['nothing', null],
  ['a word', 'marks'],
  ['a list', []],
  ['a version below the first', { version: 0, marks: [] }],
  ['half a version', { version: 1.5, marks: [] }],
  ['marks that are none', { version: 1, marks: [null, 3] }],
  ['steps that are none', { patches: 'many', inverse: [{ path: 7 }, null] }],
])('%s is refused by the schema, not by the upgrade', (_, odd) => {
  expect(() => [upgradedDocument(odd), upgradedStep(odd)]).not.toThrow();
  expect(documentSchema.safeParse(odd).success).toBe(false);
  expect(stepSchema.safeParse(odd).success).toBe(false);
});

test('what a newer Rezzik wrote is refused in words', () => {
  const newer = { version: DOCUMENT_VERSION + 1, view: {}, marks: [] };
  expect(isNewer(newer)).toBe(true);
  const [issue] = documentSchema.safeParse(newer).error?.issues ?? [];
  expect(issue?.message).toBe(
    `This document is of a newer Rezzik; this one reads up to version ${DOCUMENT_VERSION}.`,
  );
  const step = stepSchema.safeParse({
    version: DOCUMENT_VERSION + 1,
    label: 'Look',
    patches: [],
    inverse: [],
  });
  expect(step.error?.issues[0]?.message).toMatch(/^This step is of a newer Rezzik/);
});
