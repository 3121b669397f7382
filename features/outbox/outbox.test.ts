import 'fake-indexeddb/auto';
import { beforeEach, expect, test } from '@jest/globals';
import { untouched } from '@/core/shot/document';
import type { OutboxEntry } from './db';
import {
  dropFromOutbox,
  fromOutbox,
  heldIds,
  markRefused,
  putInOutbox,
  readOutbox,
  settle,
  useOutbox,
  whenStored,
} from './outbox';

const entry = (id: string): OutboxEntry => ({
  id,
  title: 'Slip',
  picture: new Blob([new Uint8Array([1, 2, 3])], { type: 'image/png' }),
  provenance: { source: 'desk', takenAt: '2026-11-23T14:02:11Z' },
  document: untouched({ width: 3, height: 1 }),
});

beforeEach(async () => {
  for (const id of await heldIds()) await dropFromOutbox(id);
});

test('what is put in comes out unchanged, also after everything in memory is gone', async () => {
  await putInOutbox(entry('a'));
  useOutbox.setState({ waiting: [] });
  await readOutbox();
  expect(useOutbox.getState().waiting).toMatchObject([{ id: 'a', title: 'Slip' }]);
  const held = await fromOutbox('a');
  expect(held?.document).toEqual(entry('a').document);
  expect([...new Uint8Array((await held?.picture.arrayBuffer()) ?? new ArrayBuffer(0))]).toEqual([
    1, 2, 3,
  ]);
  expect(held?.picture.type).toBe('image/png');
});

test('a refused take stays, with the reason, until it is dropped', async () => {
  const refused = entry('b');
  await putInOutbox(refused);
  const told = whenStored('b');
  await markRefused(refused, 'not a picture');
  await expect(told).rejects.toThrow('not a picture');
  expect((await fromOutbox('b'))?.refused).toBe('not a picture');
  await dropFromOutbox('b');
  expect(await heldIds()).toEqual([]);
});

test('whoever waits is told once it is stored, also when asking late', async () => {
  const stored = { id: 'c', revision: 1, width: 3, height: 1 };
  const early = whenStored('c');
  settle('c', stored);
  expect(await early).toEqual(stored);
  expect(await whenStored('c')).toEqual(stored);
});
