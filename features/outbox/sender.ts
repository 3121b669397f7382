import type { Stored } from '@/core/contracts/shot';
import { ApiError, messageOf, noAnswer } from '../api/ask';
import { api } from '../api/client';
import type { OutboxEntry } from './db';
import { sendLeft, type DraftFate } from './drafts';
import {
  dropFromOutbox,
  fromOutbox,
  heldIds,
  markRefused,
  noLongerWaits,
  onWake,
  readOutbox,
  settle,
  startHolding,
  useOutbox,
} from './outbox';

/** Waits between tries while the server does not answer, in milliseconds. */
const PAUSES = [500, 1000, 2000, 5000, 10_000];

interface StoredMessage {
  id: string;
  stored: Stored;
}

/**
 * Sends what the outbox holds, one take at a time and from one tab at a time, until the server
 * has it. Sending the same take twice is harmless: the server stores it once.
 */
export function startSending(): () => void {
  let stopped = false;
  let failures = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const channel = new BroadcastChannel('rezzik-outbox');
  channel.onmessage = ({ data }: MessageEvent<StoredMessage>) => {
    settle(data.id, data.stored);
    noLongerWaits(data.id);
    countOne();
  };

  const round = async (): Promise<void> => {
    if (stopped) return;
    const outcome = await navigator.locks
      .request('rezzik-outbox', () => sendAll(channel))
      .catch((error: unknown): Outcome => {
        console.error('What this browser holds could not be read:', error);
        return 'later';
      });
    failures = outcome === 'done' ? 0 : failures + 1;
    useOutbox.setState({ unreachable: outcome === 'unreachable' });
    if (outcome !== 'done') schedule(PAUSES[Math.min(failures, PAUSES.length) - 1] ?? 1000);
  };
  const schedule = (pause: number): void => {
    clearTimeout(timer);
    timer = setTimeout(() => void round(), pause);
  };

  onWake(() => schedule(0));
  const online = () => schedule(0);
  window.addEventListener('online', online);
  const release = startHolding();
  void readOutbox();
  schedule(0);
  return () => {
    stopped = true;
    clearTimeout(timer);
    window.removeEventListener('online', online);
    channel.close();
    release();
  };
}

const countOne = (): void =>
  useOutbox.setState(({ storedCount }) => ({ storedCount: storedCount + 1 }));

type Outcome = 'done' | 'later' | 'unreachable';

/**
 * Sends each take that waits; one that fails holds up no other.
 * @returns 'later' when something of it has to be tried again
 */
async function sendAll(channel: BroadcastChannel): Promise<Outcome> {
  let all: Outcome = 'done';
  for (const id of await heldIds()) {
    const outcome = await sendOne(id, channel).catch((error: unknown): Outcome => {
      // The browser's own store failed for this one: it is read again the next time.
      console.error(`The take ${id} could not be read or let go:`, error);
      return 'later';
    });
    if (outcome === 'unreachable') return outcome;
    if (outcome === 'later') all = 'later';
  }
  return all === 'done' ? sendDrafts() : all;
}

/** What was drawn follows the takes. */
async function sendDrafts(): Promise<Outcome> {
  const all = await sendLeft((shot, change) =>
    api.change(shot, change).then(
      (): DraftFate => 'sent',
      (error: unknown): DraftFate => (noAnswer(error) ? 'unreachable' : 'refused'),
    ),
  );
  return all ? 'done' : 'later';
}

async function sendOne(id: string, channel: BroadcastChannel): Promise<Outcome> {
  const entry = await fromOutbox(id);
  if (!entry || entry.refused) return 'done';
  let stored: Stored;
  try {
    stored = await api.store(toForm(entry));
  } catch (error) {
    if (error instanceof ApiError && error.status === 0) return 'unreachable';
    // The server had a fault of its own: another take may still be stored.
    if (noAnswer(error)) return 'later';
    await markRefused(entry, messageOf(error));
    return 'done';
  }
  settle(entry.id, stored);
  countOne();
  channel.postMessage({ id: entry.id, stored } satisfies StoredMessage);
  await dropFromOutbox(entry.id);
  return 'done';
}

function toForm(entry: OutboxEntry): FormData {
  const form = new FormData();
  form.set('id', entry.id);
  form.set('title', entry.title);
  if (entry.titleMade) form.set('titleMade', '1');
  form.set('provenance', JSON.stringify(entry.provenance));
  if (entry.document) form.set('document', JSON.stringify(entry.document));
  form.set('frame', entry.picture, 'frame');
  return form;
}
