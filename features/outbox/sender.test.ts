import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { setTimeout as pause } from 'node:timers/promises';
import { dropFromOutbox, heldIds, putInOutbox, useOutbox } from './outbox';
import { startSending } from './sender';

/** What the server answers to a take, by its id. */
let answers: Record<string, () => Response>;
let stop: () => void;

const stored = (id: string) => () => Response.json({ id, revision: 1, width: 3, height: 1 });
const ids = [1, 2, 3].map((n) => `00000000-0000-4000-8000-00000000000${n}`);
const [first = '', second = '', third = ''] = ids;

beforeEach(async () => {
  answers = {};
  const window = new EventTarget();
  const locks = {
    request: (_: string, act: () => unknown) => Promise.resolve(act()),
  };
  Object.assign(globalThis, {
    window,
    fetch: (_: string, init: { body: FormData }) => {
      const id = init.body.get('id');
      const answer = typeof id === 'string' ? answers[id] : undefined;
      return answer ? Promise.resolve(answer()) : Promise.reject(new TypeError('no answer'));
    },
  });
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: { locks } });
  for (const id of await heldIds()) await dropFromOutbox(id);
  useOutbox.setState({ unreachable: false, storedCount: 0 });
});
afterEach(() => stop());

const put = (id: string) =>
  putInOutbox({
    id,
    title: 'Slip',
    picture: new Blob([new Uint8Array([1, 2, 3])], { type: 'image/png' }),
    provenance: { source: 'desk', takenAt: '2026-11-23T14:02:11Z' },
  });

async function until(what: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 400 && !(await what()); i += 1) await pause(10);
  expect(await what()).toBe(true);
}

const left = async () => (await heldIds()).sort();

test('a take that the server cannot store by a fault of its own holds up no other', async () => {
  for (const id of ids) await put(id);
  answers = {
    [first]: stored(first),
    [second]: () => Response.json({ error: { code: 'fault', message: 'x' } }, { status: 500 }),
    [third]: stored(third),
  };
  stop = startSending();
  await until(async () => (await left()).join() === second);
  expect(useOutbox.getState()).toMatchObject({ unreachable: false, storedCount: 2 });
  answers[second] = stored(second);
  await until(async () => (await left()).length === 0);
});

test('without an answer everything waits, and is sent once there is one', async () => {
  for (const id of ids) await put(id);
  stop = startSending();
  await until(() => Promise.resolve(useOutbox.getState().unreachable));
  expect(await left()).toEqual(ids);
  answers = Object.fromEntries(ids.map((id) => [id, stored(id)]));
  await until(async () => (await left()).length === 0);
  expect(useOutbox.getState().unreachable).toBe(false);
});

test('a take that the browser’s own store cannot read holds up no other', async () => {
  for (const id of ids) await put(id);
  answers = Object.fromEntries(ids.map((id) => [id, stored(id)]));
  const whole = Object.getOwnPropertyDescriptor(IDBObjectStore.prototype, 'get') ?? {};
  const get = whole.value as (this: IDBObjectStore, key: IDBValidKey) => IDBRequest;
  Object.defineProperty(IDBObjectStore.prototype, 'get', {
    ...whole,
    value(this: IDBObjectStore, key: IDBValidKey) {
      if (key === first) throw new DOMException('the disk failed', 'UnknownError');
      return get.call(this, key);
    },
  });
  const { error } = console;
  console.error = () => undefined;
  try {
    stop = startSending();
    await until(async () => (await left()).join() === first);
  } finally {
    Object.defineProperty(IDBObjectStore.prototype, 'get', whole);
    console.error = error;
  }
  await until(async () => (await left()).length === 0);
});
