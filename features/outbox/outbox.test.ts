import 'fake-indexeddb/auto';
import { beforeEach, expect, test } from '@jest/globals';
import { untouched } from '@/core/document/view';
import type { OutboxEntry } from './db';
import {
  dropFromOutbox,
  fromOutbox,
  heldIds,
  markRefused,
  putInOutbox,
  readOutbox,
  settle,
  untilSafe,
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

test('of its size two numbers are held, whatever else hangs on what says it', async () => {
  const frame = { width: 3, height: 1, pixels: new Uint8Array(12) };
  await putInOutbox({ ...entry('d'), size: frame });
  expect((await fromOutbox('d'))?.size).toEqual({ width: 3, height: 1 });
  await putInOutbox(entry('e'));
  expect((await fromOutbox('e'))?.size).toBeUndefined();
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

test('whoever asks for a take that is still being put in waits for it', async () => {
  let encoded: () => void = () => undefined;
  const png = new Promise<void>((done) => (encoded = done));
  const safe = untilSafe(
    'f',
    png.then(() => putInOutbox(entry('f'))),
  );
  const asked = fromOutbox('f');
  encoded();
  await safe;
  expect((await asked)?.title).toBe('Slip');
  const refused = expect(untilSafe('g', Promise.reject(new Error('no room')))).rejects;
  const said = refused.toThrow('no room');
  expect(await fromOutbox('g')).toBeUndefined();
  await said;
});
