import { create } from 'zustand';
import { deepEqual } from 'fast-equals';
import { produce } from 'immer';
import type { Guide, StoredGuide } from '@/core/contracts/guide';
import { limits } from '@/core/values/limits';
import { ApiError, messageOf, noAnswer } from '../api/ask';
import { api } from '../api/client';
import { currentGuide } from '../api/guides';
import { notify } from '../notices/noticeStore';

export type GuideState =
  | { name: 'stored' | 'storing' }
  | { name: 'waiting'; why: string }
  | { name: 'stale'; current: StoredGuide };

/** What is written of a guide, and how it was before. */
interface Draft {
  title: string;
  guide: Guide;
}

interface Open extends Draft {
  id: string;
  /** As the server last told it: its revision, and the shots that it names. */
  stored: StoredGuide;
  state: GuideState;
  before: readonly Draft[];
  undone: readonly Draft[];
  /** What the last change was about: quick ones about the same are one step of undo. */
  about: { what: string; at: number };
}

/** The guide that is open. */
export const useGuide = create<{ open: Open | null }>(() => ({ open: null }));

const openGuide = (): Open | null => useGuide.getState().open;
const set = (change: Partial<Open>): void =>
  useGuide.setState(({ open }) => ({ open: open && { ...open, ...change } }));

/** Waits this long after a change, so that a word is sent once. */
const PAUSE = 400;
const RETRY = 2000;
/** Changes about one thing that follow each other this fast are one step, ms. */
const JOINS_WITHIN = 1500;
const MOST_STEPS = 200;

let timer: ReturnType<typeof setTimeout> | undefined;
let sending: Promise<void> | null = null;
/** What was sent since the last answer, oldest first. */
let sent: Open[] = [];

/** The last revision that the server told, by guide. */
const revisions = new Map<string, number>();
/** Guides that were left before the server had all of them, on their way. */
const leaving = new Map<string, Promise<void>>();

/** Opens a guide, or reads it anew; what is not stored yet stays. */
export async function readGuide(id: string): Promise<void> {
  await leaving.get(id);
  const stored = await api.guide(id);
  const open = openGuide();
  if (open?.id === id && open.state.name !== 'stored') return;
  revisions.set(id, stored.revision);
  if (open?.id === id && open.stored.revision === stored.revision) {
    set({ stored });
    return;
  }
  const { title, guide } = stored;
  useGuide.setState({
    open: {
      ...{ id, stored, title, guide, state: { name: 'stored' } },
      ...{ before: [], undone: [], about: { what: '', at: 0 } },
    },
  });
}

/** Lets go of the open guide; what is not stored yet is sent all the same. */
export function leaveGuide(): void {
  clearTimeout(timer);
  const left = openGuide();
  useGuide.setState({ open: null });
  if (!left || left.state.name === 'stored') return;
  const { id } = left;
  leaving.set(
    id,
    sendLeft(left)
      .catch((error: unknown) => sayLost(left.title, messageOf(error)))
      .finally(() => leaving.delete(id)),
  );
}

/** The open guide was removed: nothing of it is sent any more. */
export function forgetGuide(): void {
  clearTimeout(timer);
  useGuide.setState({ open: null });
}

async function sendLeft({ id, title, guide }: Open): Promise<void> {
  await sending;
  for (;;) {
    try {
      const revision = revisions.get(id) ?? 1;
      revisions.set(id, (await api.changeGuide(id, patchOf(revision, { title, guide }))).revision);
      return;
    } catch (error) {
      const current = currentGuide(error);
      if (current && isSame(current, { title, guide })) return;
      if (current) return keepAnew({ title, guide }, 'changed');
      if (error instanceof ApiError && error.status === 404)
        return keepAnew({ title, guide }, 'removed');
      if (!noAnswer(error)) return sayLost(title, messageOf(error));
      await new Promise((resolve) => setTimeout(resolve, RETRY));
    }
  }
}

/** Somebody changed or removed it meanwhile, and nobody is there to choose: this version lives, too. */
async function keepAnew({ title, guide }: Draft, what: 'changed' | 'removed'): Promise<void> {
  const made = await api.addGuide({
    title: `${title}, this tab`.slice(0, limits.titleLength),
    shots: [],
  });
  await api.changeGuide(made.id, { revision: made.revision, guide });
  notify({
    key: 'guide-left',
    tone: 'bad',
    title: `“${title}” was ${what} in another tab`,
    lines: ['What was written here is a guide of its own now.'],
  });
}

const sayLost = (title: string, why: string): void =>
  notify({ key: 'guide-left', tone: 'bad', title: `“${title}” is not stored`, lines: [why] });

/** Changes what is written. @param what it is about; quick changes about the same are one step */
export function change(recipe: (draft: Draft) => void, what = ''): void {
  const open = openGuide();
  if (!open) return;
  const { title, guide, before, about } = open;
  const next = produce({ title, guide }, recipe);
  if (next.title === title && next.guide === guide) return;
  const now = Date.now();
  const joins = what !== '' && what === about.what && now - about.at < JOINS_WITHIN;
  set({
    ...next,
    before: joins ? before : [...before.slice(1 - MOST_STEPS), { title, guide }],
    undone: [],
    about: { what, at: now },
  });
  storeSoon();
}

/** Goes to the last version on one side; the one that was there goes to the other side. */
function step(from: 'before' | 'undone', to: 'before' | 'undone'): void {
  const open = openGuide();
  const last = open?.[from].at(-1);
  if (!open || !last) return;
  const { title, guide } = open;
  set({
    ...last,
    [from]: open[from].slice(0, -1),
    [to]: [...open[to], { title, guide }],
    about: { what: '', at: 0 },
  });
  storeSoon();
}

export const undo = (): void => step('before', 'undone');
export const redo = (): void => step('undone', 'before');

function storeSoon(): void {
  if (openGuide()?.state.name === 'stale') return;
  set({ state: { name: 'storing' } });
  clearTimeout(timer);
  timer = setTimeout(() => void send(), PAUSE);
}

function send(): Promise<void> {
  sending ??= sendLatest().finally(() => {
    sending = null;
  });
  return sending;
}

async function sendLatest(): Promise<void> {
  for (;;) {
    const open = openGuide();
    if (!open || open.state.name === 'stored' || open.state.name === 'stale') return;
    const { id } = open;
    sent.push(open);
    try {
      noteStored(open, await api.changeGuide(id, patchOf(open.stored.revision, open)));
    } catch (error) {
      if (openGuide()?.id !== id) return;
      const current = currentGuide(error);
      if (current) {
        // It may have arrived, and only the answer was lost.
        const own = sent.find((draft) => draft.id === id && isSame(current, draft));
        if (own) {
          noteStored(own, current);
          continue;
        }
        set({ state: { name: 'stale', current } });
        return;
      }
      set({ state: { name: 'waiting', why: messageOf(error) } });
      if (!noAnswer(error)) return;
      await new Promise((resolve) => setTimeout(resolve, RETRY));
    }
  }
}

/** The server has what was sent. */
function noteStored({ id, title, guide }: Open, stored: StoredGuide): void {
  revisions.set(id, stored.revision);
  sent = [];
  const now = openGuide();
  if (now?.id !== id) return;
  const same = now.title === title && now.guide === guide;
  set({ stored, ...(same && { state: { name: 'stored' } }) });
}

/** An empty title is none: the one before stays until there is another. */
const patchOf = (revision: number, { title, guide }: Draft) => ({
  revision,
  ...(title.trim() && { title: title.trim() }),
  guide,
});

const isSame = (a: Draft, b: Draft): boolean => a.title === b.title && deepEqual(a.guide, b.guide);

/** Resolves when the server has all that was written. @throws Error with the reason why it has not */
export async function guideStored(): Promise<void> {
  clearTimeout(timer);
  await send();
  const state = openGuide()?.state;
  if (state?.name === 'waiting') throw new Error(state.why);
  if (state?.name === 'stale') throw new Error('This guide was changed elsewhere.');
}

/** What was stored elsewhere takes the place of what is written here; undo brings that back. */
export function takeTheirs(): void {
  const open = openGuide();
  if (open?.state.name !== 'stale') return;
  const { current } = open.state;
  const { title, guide, before } = open;
  revisions.set(open.id, current.revision);
  set({
    ...{ stored: current, title: current.title, guide: current.guide, state: { name: 'stored' } },
    ...{ before: [...before, { title, guide }], undone: [] },
  });
}

/** What is written here takes the place of what was stored elsewhere. */
export function storeMine(): void {
  const open = openGuide();
  if (open?.state.name !== 'stale') return;
  const { current } = open.state;
  const theirs = { title: current.title, guide: current.guide };
  revisions.set(open.id, current.revision);
  set({
    ...{ stored: current, state: { name: 'storing' } },
    ...{ before: [...open.before, theirs], undone: [] },
  });
  void send();
}

/** The page goes: what is not sent yet is sent while it goes, where it is not too long for that. */
export function sendWhileLeaving(): void {
  const open = openGuide();
  if (!open || sending || open.state.name === 'stored' || open.state.name === 'stale') return;
  sent.push(open);
  void api.changeGuide(open.id, patchOf(open.stored.revision, open), true).catch(() => undefined);
}

/** Whether the server does not have all that is written. */
export const isUnsent = (): boolean => {
  const state = openGuide()?.state.name;
  return state === 'storing' || state === 'waiting';
};
