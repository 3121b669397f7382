import { z } from 'zod';
import { ApiError, noAnswer } from '../api/ask';
import { api } from '../api/client';
import { fromOutbox, whenStored } from '../outbox/outbox';
import { changeEntry } from '../trail/trail';

/** Names that the server does not have yet: they wait in the browser, over a reload, too. */
const KEY = 'rezzik-renames';
const waitingSchema = z.record(z.string(), z.string());

function waiting(): Record<string, string> {
  try {
    return waitingSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
  } catch {
    return {};
  }
}

function hold(id: string, title: string | null): void {
  const { [id]: _, ...others } = waiting();
  localStorage.setItem(KEY, JSON.stringify(title === null ? others : { ...others, [id]: title }));
}

interface Named {
  id: string;
  title: string;
}

let channel: BroadcastChannel | null = null;
const listeners = new Set<(named: Named) => void>();

/** Tells of every name that is given, here or in another tab. */
export function onNamed(tell: (named: Named) => void): () => void {
  listeners.add(tell);
  return () => listeners.delete(tell);
}

/** The name that a shot has here, although the server does not know it yet. */
export const heldName = (id: string): string | undefined => waiting()[id];

/**
 * Gives a shot its name, the same way wherever that is asked for. Without an answer the name is
 * held and given later.
 * @throws what the server refuses
 */
export async function renameShot(id: string, title: string): Promise<void> {
  const named: Named = { id, title };
  hold(id, title);
  changeEntry(id, { title });
  listeners.forEach((tell) => tell(named));
  channel?.postMessage(named);
  await send(id, title);
}

async function send(id: string, title: string): Promise<void> {
  try {
    await api.rename(id, title);
  } catch (error) {
    if (noAnswer(error)) return;
    // A take that is still on its way is named once it is there.
    if (error instanceof ApiError && error.status === 404 && (await fromOutbox(id))) {
      await whenStored(id);
      return send(id, title);
    }
    hold(id, null);
    throw error;
  }
  if (waiting()[id] === title) hold(id, null);
}

const AGAIN = 10_000;

/** Gives the names that wait, now and whenever there may be an answer; tells and hears other tabs. */
export function startNaming(): () => void {
  const all = () => {
    for (const [id, title] of Object.entries(waiting()))
      void send(id, title).catch(() => undefined);
  };
  all();
  const tabs = new BroadcastChannel('rezzik-names');
  tabs.onmessage = ({ data }: MessageEvent<Named>) => listeners.forEach((tell) => tell(data));
  channel = tabs;
  const timer = setInterval(all, AGAIN);
  window.addEventListener('online', all);
  return () => {
    clearInterval(timer);
    tabs.close();
    channel = null;
    window.removeEventListener('online', all);
  };
}
