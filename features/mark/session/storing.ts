import type { Shot, ShotChange } from '@/core/contracts/shot';
import type { History } from '@/core/document/history';
import { sameDocument } from '@/core/document/sameDocument';
import type { Step } from '@/core/document/steps';
import { ApiError, messageOf, noAnswer } from '../../api/ask';
import { api } from '../../api/client';
import { dropOwnDraft, holdDraft } from '../../outbox/drafts';
import { whenStored } from '../../outbox/outbox';
import { settleBy, settled } from '../../outbox/settling';
import type { StoredState } from './document';
import { session, update, openId, type Session } from './session';

/** Waits this long after a change, so that a drag or a word is sent once. */
const PAUSE = 350;
const RETRY_PAUSE = 2000;

/** What the server has of a shot, and what of it is on its way. One per open shot. */
interface Storer {
  id: string;
  revision: number;
  /** The take itself may still be on its way. */
  arrived: Promise<unknown>;
  steps: readonly Step[];
  /** What was sent, oldest first, and may be there although no answer said so. */
  unsure: History[];
  timer: ReturnType<typeof setTimeout> | undefined;
  sending: Promise<void> | null;
  latest: Session | null;
  wait: () => Promise<void>;
}

let current: Storer | null = null;

interface Known {
  revision: number;
  steps: readonly Step[];
  /** The take is still in the outbox. */
  unstored: boolean;
  /** What the page before this one may still have been sending when it went. */
  unsure?: History;
}

/** Begins to look after a shot that was just opened, by what is known of the server. */
export function startStoring(opened: Pick<Session, 'id'>, server: Known): void {
  const storer: Storer = {
    id: opened.id,
    revision: server.revision,
    arrived: server.unstored ? whenStored(opened.id) : Promise.resolve(),
    steps: server.steps,
    unsure: server.unsure ? [server.unsure] : [],
    timer: undefined,
    sending: null,
    latest: null,
    wait: async () => {
      if (storer.latest || storer.sending) await send(storer);
    },
  };
  current = storer;
  settleBy(storer.id, storer.wait);
  if (server.unstored) watchArrival(storer);
}

function watchArrival(storer: Storer): void {
  show(storer, { name: 'waiting', why: null });
  storer.arrived.then(
    () => !storer.latest && show(storer, { name: 'stored', at: Date.now() }),
    (error: unknown) => show(storer, { name: 'waiting', why: messageOf(error) }),
  );
}

function show(storer: Storer, stored: StoredState): void {
  if (openId() === storer.id) update({ stored });
}

/** Notes a change: held in the browser at once, sent to the server in a moment. */
export function storeSoon(): void {
  const storer = current;
  const open = session();
  if (!storer || open.stored.name === 'stale') {
    void hold(storer, open);
    return;
  }
  storer.latest = open;
  void hold(storer, open);
  if (open.stored.name !== 'waiting') update({ stored: { name: 'storing' } });
  clearTimeout(storer.timer);
  storer.timer = setTimeout(() => void send(storer), PAUSE);
}

async function hold(storer: Storer | null, open: Session): Promise<void> {
  if (!storer) return;
  const underway = storer.unsure.at(-1)?.document;
  await holdDraft(storer.id, toChange(storer, open), underway).catch(() => undefined);
}

function toChange(storer: Storer, open: Session): ShotChange {
  const { document, steps, position } = open.history;
  let keep = 0;
  while (keep < steps.length && steps[keep] === storer.steps[keep]) keep += 1;
  return {
    revision: storer.revision,
    document,
    steps: { keep, added: steps.slice(keep), position },
  };
}

/** Sends the latest version; one at a time, and again when it changed meanwhile. */
function send(storer: Storer): Promise<void> {
  storer.sending ??= sendLatest(storer).finally(() => {
    storer.sending = null;
  });
  return storer.sending;
}

/** The server has this, as its `revision`. */
function arrived(storer: Storer, revision: number, history: History): void {
  storer.revision = revision;
  storer.steps = history.steps;
  storer.unsure = [];
  if (storer.latest?.history === history) storer.latest = null;
}

/** Where what is stored is what came from here, and only its answer was lost. */
const ownOf = (storer: Storer, current: Shot): History | undefined =>
  current.revision === storer.revision + 1
    ? storer.unsure.find(({ document }) => sameDocument(document, current.document))
    : undefined;

async function sendLatest(storer: Storer): Promise<void> {
  while (storer.latest) {
    const open = storer.latest;
    try {
      await storer.arrived;
      if (storer.unsure.at(-1) !== open.history) storer.unsure.push(open.history);
      const { revision } = await api.change(storer.id, toChange(storer, open));
      arrived(storer, revision, open.history);
    } catch (error) {
      if (error instanceof ApiError && error.current) {
        const own = ownOf(storer, error.current);
        if (own) {
          arrived(storer, error.current.revision, own);
          continue;
        }
        storer.latest = null;
        show(storer, { name: 'stale', current: error.current });
        return;
      }
      show(storer, { name: 'waiting', why: messageOf(error) });
      if (!noAnswer(error)) return;
      await new Promise((resolve) => setTimeout(resolve, RETRY_PAUSE));
    }
  }
  await dropOwnDraft(storer.id).catch(() => undefined);
  // A change that came while the draft was dropped is held again.
  if (storer.latest) {
    await hold(storer, storer.latest);
    return sendLatest(storer);
  }
  show(storer, { name: 'stored', at: Date.now() });
}

/** The revision that the server has, if it has all that is drawn; null while something is on its way. */
export const settledRevision = (id: string): number | null =>
  current?.id === id && !current.latest && !current.sending ? current.revision : null;

/** The shot is left: what is not sent yet is sent now. */
export function stopStoring(): void {
  const storer = current;
  current = null;
  if (!storer) return;
  clearTimeout(storer.timer);
  void storer.wait().finally(() => settled(storer.id, storer.wait));
}
