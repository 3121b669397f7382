import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { ShotChange } from '@/core/contracts/shot';
import type { ShotDocument } from '@/core/document/document';
import { everyMark } from '@/tests/lib/marks';
import { openTestSession } from '@/tests/lib/session';
import { held } from '../../outbox/db';
import { orphanedDrafts } from '../../outbox/drafts';
import { settle } from '../../outbox/outbox';
import { addMark } from '../actions/make';
import { undo } from './changes';
import { session } from './session';
import { whenSettled } from '../../outbox/settling';
import { startStoring, stopStoring, storeSoon } from './storing';

type Answer = () => Response | Promise<Response>;

let sent: ShotChange[];
let answers: Answer[];
const ok =
  (revision: number): Answer =>
  () =>
    Response.json({ revision });
const [arrow, , , line] = everyMark;

/** What the browser has and Node lacks: locks that are always free, and a tab's own storage. */
beforeEach(() => {
  sent = [];
  answers = [];
  const store = new Map<string, string>();
  Object.assign(globalThis, {
    sessionStorage: {
      getItem: (k: string) => store.get(k) ?? null,
      setItem: (k: string, v: string) => store.set(k, v),
    },
    fetch: (_: string, init: { body: string }) => {
      sent.push(JSON.parse(init.body) as ShotChange);
      const answer = answers.shift();
      return answer ? Promise.resolve(answer()) : Promise.reject(new TypeError('no answer'));
    },
  });
  const locks = {
    request: (_: string, __: object, act: (lock: object) => unknown) => Promise.resolve(act({})),
    query: () => Promise.resolve({ held: [] }),
  };
  Object.defineProperty(globalThis, 'navigator', { configurable: true, value: { locks } });
});
afterEach(() => stopStoring());

const open = async (id: string, unstored = false) => {
  await openTestSession([], id);
  startStoring(session(), { revision: 1, steps: [], unstored });
};
const add = (mark = arrow) => mark && addMark(structuredClone(mark));
const drafts = async (shot: string) => (await held()).getAllFromIndex('drafts', 'shot', shot);
const until = async (what: () => boolean | Promise<boolean>) => {
  for (let i = 0; i < 400 && !(await what()); i += 1) await new Promise((r) => setTimeout(r, 10));
  expect(await what()).toBe(true);
};

test('quick changes are sent once, with their steps; then nothing is held any more', async () => {
  await open('a');
  answers.push(ok(2));
  add();
  add(line);
  await until(() => session().stored.name === 'stored');
  expect(sent).toHaveLength(1);
  expect(sent[0]).toMatchObject({ revision: 1, steps: { keep: 0, position: 2 } });
  expect(sent[0]?.steps?.added).toHaveLength(2);
  expect(await drafts('a')).toEqual([]);
});

test('the next change tells only what is new, and undo only the position', async () => {
  await open('b');
  answers.push(ok(2), ok(3));
  add();
  await until(() => sent.length === 1 && session().stored.name === 'stored');
  undo();
  await until(() => sent.length === 2 && session().stored.name === 'stored');
  expect(sent[1]).toMatchObject({ revision: 2, steps: { keep: 1, added: [], position: 0 } });
});

test('a change is held in the browser before it is sent', async () => {
  await open('c');
  add();
  await until(async () => (await drafts('c')).length === 1);
  expect(sent).toHaveLength(0);
  answers.push(ok(2));
  await until(async () => (await drafts('c')).length === 0);
});

test('no answer: it waits, says so, and is sent again', async () => {
  await open('d');
  add();
  await until(() => session().stored.name === 'waiting');
  answers.push(ok(2));
  await until(() => session().stored.name === 'stored');
  expect(sent).toHaveLength(2);
});

/** What is stored is another revision, with this document. */
const stale =
  (revision: number, document: () => ShotDocument): Answer =>
  () =>
    Response.json(
      {
        error: { code: 'stale', message: 'changed' },
        current: {
          ...{ id: session().id, title: 'x', titleOwn: true, revision, document: document() },
          ...{ provenance: session().provenance, width: 600, height: 400, binnedAt: null },
        },
      },
      { status: 409 },
    );
const lost: Answer = () => Promise.reject(new TypeError('no answer'));
const ID = '00000000-0000-4000-8000-000000000000';

test('a change whose answer was lost is known again; what came after it is sent on top', async () => {
  await open(ID);
  answers.push(
    lost,
    stale(2, () => sent[0]?.document ?? session().history.document),
    ok(3),
  );
  add();
  await until(() => session().stored.name === 'waiting');
  add(line);
  await until(() => session().stored.name === 'stored');
  expect(sent).toHaveLength(3);
  expect(sent[1]).toMatchObject({ revision: 1, steps: { keep: 0, position: 2 } });
  expect(sent[2]).toMatchObject({ revision: 2, steps: { keep: 1, position: 2 } });
  expect(sent[2]?.steps?.added).toHaveLength(1);
  expect(await drafts(ID)).toEqual([]);
});

test('what the page before was still sending is known again', async () => {
  await openTestSession([], ID);
  add();
  const { history } = session();
  startStoring(session(), { revision: 1, steps: [], unstored: false, unsure: history });
  answers.push(
    stale(2, () => history.document),
    ok(3),
  );
  storeSoon();
  await until(() => session().stored.name === 'stored');
  undo();
  await until(() => sent.length === 2 && session().stored.name === 'stored');
  expect(sent[1]).toMatchObject({ revision: 2, steps: { keep: 1, added: [], position: 0 } });
});

test('the same document two revisions on is another’s', async () => {
  await open(ID);
  answers.push(
    lost,
    stale(3, () => sent[0]?.document ?? session().history.document),
  );
  add();
  await until(() => session().stored.name === 'stale');
  expect(sent).toHaveLength(2);
});

test('a draft says what was on its way when it was held', async () => {
  await open(ID);
  let answer: (response: Response) => void = () => undefined;
  answers.push(() => new Promise((resolve) => (answer = resolve)), ok(3));
  add();
  await until(() => sent.length === 1);
  add(line);
  await until(async () => (await drafts(ID))[0]?.change.document.marks.length === 2);
  expect((await drafts(ID))[0]?.underway?.marks).toHaveLength(1);
  answer(Response.json({ revision: 2 }));
  await until(() => session().stored.name === 'stored');
  expect(await drafts(ID)).toEqual([]);
});

test('a stale answer: told, never sent again, still held', async () => {
  await open(ID);
  const { document } = session().history;
  answers.push(stale(5, () => document));
  add();
  await until(() => session().stored.name === 'stale');
  add(line);
  await new Promise((r) => setTimeout(r, 600));
  expect(sent).toHaveLength(1);
  expect((await drafts(session().id)).at(0)?.change.document.marks).toHaveLength(2);
});

test('changes of a take that is still on its way wait for it', async () => {
  await open('e', true);
  expect(session().stored.name).toBe('waiting');
  answers.push(ok(2));
  add();
  await new Promise((r) => setTimeout(r, 600));
  expect(sent).toHaveLength(0);
  settle('e', { id: 'e', revision: 1, width: 600, height: 400 });
  await until(() => session().stored.name === 'stored');
  expect(sent).toHaveLength(1);
});

test('leaving sends at once, and who needs it can wait for it', async () => {
  await open('f');
  answers.push(ok(2));
  add();
  stopStoring();
  await whenSettled('f');
  expect(sent).toHaveLength(1);
});

jest.setTimeout(20_000);

test('what a draft holds without a value is read all the same, also as an older version held it', async () => {
  await open('g', true);
  if (!arrow) throw new Error('There is no arrow.');
  addMark({ ...structuredClone(arrow), locked: undefined });
  await until(async () => (await drafts('g')).length === 1);
  const [draft] = await drafts('g');
  if (!draft?.change.steps) throw new Error('Nothing is held.');
  expect((await orphanedDrafts('g'))[0]?.change.document.marks).toHaveLength(1);
  const [step] = draft.change.steps.added;
  const older = { version: 1, ...step, patches: step?.patches ?? [] };
  const marks = [{ ...arrow, plain: true }];
  const document = { ...draft.change.document, version: 1, marks };
  const change = { ...draft.change, document, steps: { ...draft.change.steps, added: [older] } };
  await (await held()).put('drafts', Object.assign(structuredClone(draft), { change }));
  const [read] = await orphanedDrafts('g');
  expect(read?.change.document).toMatchObject({ version: 6, marks: [{ standsOut: false }] });
});
