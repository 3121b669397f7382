import type { Stored } from '@/core/contracts/shot';
import { api, messageOf, noAnswer } from '../api/client';
import type { OutboxEntry } from './db';
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
    const done = await navigator.locks.request('rezzik-outbox', () => sendAll(channel));
    failures = done ? 0 : failures + 1;
    useOutbox.setState({ unreachable: !done });
    if (!done) schedule(PAUSES[Math.min(failures, PAUSES.length) - 1] ?? 1000);
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

/** @returns false when the server could not be reached */
async function sendAll(channel: BroadcastChannel): Promise<boolean> {
  for (const id of await heldIds()) {
    const entry = await fromOutbox(id);
    if (!entry || entry.refused) continue;
    try {
      const stored = await api.store(toForm(entry));
      await dropFromOutbox(entry.id);
      settle(entry.id, stored);
      countOne();
      channel.postMessage({ id: entry.id, stored } satisfies StoredMessage);
    } catch (error) {
      if (noAnswer(error)) return false;
      await markRefused(entry, messageOf(error));
    }
  }
  return true;
}

function toForm(entry: OutboxEntry): FormData {
  const form = new FormData();
  form.set('id', entry.id);
  form.set('title', entry.title);
  form.set('provenance', JSON.stringify(entry.provenance));
  if (entry.document) form.set('document', JSON.stringify(entry.document));
  form.set('frame', entry.picture, 'frame');
  return form;
}
