import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { GuidePatch, StoredGuide } from '@/core/contracts/guide';
import { useNotices } from '../notices/noticeStore';
import { addHeading, changeHeading } from './edit';
import {
  change,
  forgetGuide,
  guideStored,
  leaveGuide,
  readGuide,
  redo,
  sendWhileLeaving,
  takeTheirs,
  undo,
  useGuide,
} from './guideStore';

/** What a server has of each guide; a patch of another revision is refused. */
let there: Map<string, StoredGuide>;
let patches: { id: string; patch: GuidePatch }[];
/** What happens to the next answers: lost on their way back, or the request on its way there. */
let mishaps: ('answer' | 'request')[];

const uuid = (n: number) => `00000000-0000-4000-8000-00000000000${n}`;
const fresh = (n: number): StoredGuide => ({
  ...{ id: uuid(n), title: `Guide ${n}`, revision: 1, changedAt: '2026-11-23T14:02:11.000Z' },
  ...{ guide: { version: 1, items: [], look: null, longest: null, clips: 'still' }, shots: [] },
});

interface Asked {
  method?: string;
  body: string;
}

function answer(path: string, init?: Asked): Response {
  if (init?.method === 'POST') {
    const made = { ...fresh(9), title: 'made' };
    there.set(made.id, made);
    return Response.json(made, { status: 201 });
  }
  const id = path.split('/').at(-1) ?? '';
  const stored = there.get(id);
  if (!stored) return Response.json({ error: { code: 'x', message: 'gone' } }, { status: 404 });
  if (init?.method !== 'PATCH') return Response.json(stored);
  const patch = JSON.parse(init.body) as GuidePatch;
  patches.push({ id, patch });
  if (patch.revision !== stored.revision) {
    const error = { code: 'stale', message: 'changed' };
    return Response.json({ error, current: stored }, { status: 409 });
  }
  const { title = stored.title, guide = stored.guide } = patch;
  const next = { ...stored, title, guide, revision: stored.revision + 1 };
  there.set(id, next);
  return Response.json(next);
}

beforeEach(() => {
  there = new Map([1, 2].map((n) => [uuid(n), fresh(n)]));
  patches = [];
  mishaps = [];
  useNotices.setState({ notices: [] });
  Object.assign(globalThis, {
    fetch: (path: string, init?: Asked) => {
      const mishap = init?.method === 'PATCH' ? mishaps.shift() : undefined;
      if (mishap === 'request') return Promise.reject(new TypeError('no way'));
      const made = answer(path, init);
      return mishap ? Promise.reject(new TypeError('lost')) : Promise.resolve(made);
    },
  });
});
afterEach(() => {
  leaveGuide();
});
jest.setTimeout(20_000);

const open = () => {
  const now = useGuide.getState().open;
  if (!now) throw new Error('No guide is open.');
  return now;
};
const until = async (what: () => boolean) => {
  for (let i = 0; i < 600 && !what(); i += 1) await new Promise((r) => setTimeout(r, 10));
  expect(what()).toBe(true);
};
const titled = (title: string) => change((draft) => void (draft.title = title));

test('quick changes are sent once; those about one thing are one step of undo', async () => {
  await readGuide(uuid(1));
  const id = addHeading(null);
  for (const text of ['B', 'Be', 'Beds']) changeHeading(id, text);
  await guideStored();
  expect(patches).toHaveLength(1);
  expect(there.get(uuid(1))?.guide.items).toEqual([{ kind: 'heading', id, text: 'Beds' }]);
  undo();
  expect(open().guide.items).toEqual([{ kind: 'heading', id, text: '' }]);
  redo();
  undo();
  undo();
  await guideStored();
  expect(there.get(uuid(1))?.guide.items).toEqual([]);
});

test('left at once it is sent all the same, and the next one stays open', async () => {
  await readGuide(uuid(1));
  titled('Written last');
  leaveGuide();
  await readGuide(uuid(2));
  await until(() => there.get(uuid(1))?.title === 'Written last');
  await new Promise((r) => setTimeout(r, 50));
  expect(open().id).toBe(uuid(2));
  leaveGuide();
  await readGuide(uuid(1));
  expect(open().title).toBe('Written last');
});

test('no answer, or one that was lost: it is sent again, and known again', async () => {
  await readGuide(uuid(1));
  mishaps = ['request', 'answer'];
  titled('Third time');
  await until(() => open().state.name === 'waiting');
  await until(() => open().state.name === 'stored');
  expect(there.get(uuid(1))).toMatchObject({ title: 'Third time', revision: 2 });
  titled('And on');
  await guideStored();
  expect(there.get(uuid(1))).toMatchObject({ title: 'And on', revision: 3 });
});

test('what is written on while an answer is lost is sent on top', async () => {
  await readGuide(uuid(1));
  mishaps = ['answer'];
  titled('One');
  await until(() => open().state.name === 'waiting');
  titled('Two');
  await until(() => open().state.name === 'stored');
  expect(there.get(uuid(1))).toMatchObject({ title: 'Two', revision: 3 });
});

test('changed elsewhere: the other version is taken, and undo brings one’s own back', async () => {
  await readGuide(uuid(1));
  there.set(uuid(1), { ...fresh(1), title: 'Theirs', revision: 2 });
  titled('Mine');
  await until(() => open().state.name === 'stale');
  await expect(guideStored()).rejects.toThrow('changed elsewhere');
  takeTheirs();
  expect(open().title).toBe('Theirs');
  undo();
  await guideStored();
  expect(there.get(uuid(1))).toMatchObject({ title: 'Mine', revision: 3 });
});

test('removed here nothing of it is sent any more; removed elsewhere it lives on', async () => {
  await readGuide(uuid(1));
  titled('Late');
  forgetGuide();
  await new Promise((r) => setTimeout(r, 600));
  expect(patches).toEqual([]);
  await readGuide(uuid(2));
  addHeading(null);
  there.delete(uuid(2));
  leaveGuide();
  await until(() => there.get(uuid(9))?.guide.items.length === 1);
  expect(useNotices.getState().notices[0]?.title).toBe('“Guide 2” was removed in another tab');
});

test('what was sent while the page went is known again where it comes back', async () => {
  await readGuide(uuid(1));
  titled('Sent by the way');
  sendWhileLeaving();
  await guideStored();
  expect(there.get(uuid(1))).toMatchObject({ title: 'Sent by the way', revision: 2 });
});

test('changed elsewhere and left: both versions live', async () => {
  await readGuide(uuid(1));
  there.set(uuid(1), { ...fresh(1), title: 'Theirs', revision: 2 });
  addHeading(null);
  leaveGuide();
  await until(() => there.get(uuid(9))?.guide.items.length === 1);
  expect(there.get(uuid(1))?.title).toBe('Theirs');
  expect(useNotices.getState().notices[0]?.title).toBe('“Guide 1” was changed in another tab');
});
