import { create } from 'zustand';
import type { Stored } from '@/core/contracts/shot';
import { held, type OutboxEntry } from './db';

/** What the views show of a take that is not stored yet; its picture stays in the browser's store. */
export interface Waiting {
  id: string;
  title: string;
  takenAt: string;
  refused?: string;
}

interface OutboxState {
  waiting: Waiting[];
  /** True when the last try to reach the server failed. */
  unreachable: boolean;
  /** Counts takes that are stored, so that lists know when to read again. */
  storedCount: number;
}

export const useOutbox = create<OutboxState>(() => ({
  waiting: [],
  unreachable: false,
  storedCount: 0,
}));

const toWaiting = (entry: OutboxEntry): Waiting => ({
  id: entry.id,
  title: entry.title,
  takenAt: entry.provenance.takenAt,
  refused: entry.refused,
});

/** Takes that are confirmed but not in the browser's store yet: the tab must not close over them. */
let putting = 0;

function holdTab(event: BeforeUnloadEvent): void {
  if (putting > 0) event.preventDefault();
}

export const startHolding = (): (() => void) => {
  window.addEventListener('beforeunload', holdTab);
  return () => window.removeEventListener('beforeunload', holdTab);
};

/** Counts work that ends with a take being safe. */
export async function untilSafe<T>(work: Promise<T>): Promise<T> {
  putting += 1;
  try {
    return await work;
  } finally {
    putting -= 1;
  }
}

/** Puts a take into the outbox; once this resolves, a reload does not lose it. */
export async function putInOutbox(entry: OutboxEntry): Promise<void> {
  await (await held()).put('outbox', entry);
  useOutbox.setState(({ waiting }) => ({
    waiting: [...waiting.filter((w) => w.id !== entry.id), toWaiting(entry)],
  }));
  wake();
}

export const fromOutbox = async (id: string): Promise<OutboxEntry | undefined> =>
  (await held()).get('outbox', id);

/** Reads what an earlier visit left, or another tab holds. */
export async function readOutbox(): Promise<OutboxEntry[]> {
  const entries = await (await held()).getAll('outbox');
  useOutbox.setState({ waiting: entries.map(toWaiting) });
  return entries;
}

export async function dropFromOutbox(id: string): Promise<void> {
  await (await held()).delete('outbox', id);
  useOutbox.setState(({ waiting }) => ({ waiting: waiting.filter((w) => w.id !== id) }));
}

export async function markRefused(entry: OutboxEntry, why: string): Promise<void> {
  await (await held()).put('outbox', { ...entry, refused: why });
  await readOutbox();
  settle(entry.id, new Error(why));
}

type Settled = Stored | Error;
const listeners = new Map<string, ((settled: Settled) => void)[]>();
const settledTakes = new Map<string, Settled>();

export function settle(id: string, settled: Settled): void {
  settledTakes.set(id, settled);
  listeners.get(id)?.forEach((tell) => tell(settled));
  listeners.delete(id);
}

/** Resolves when the server has the take; rejects when it will never take it. */
export function whenStored(id: string): Promise<Stored> {
  return new Promise((resolve, reject) => {
    const tell = (settled: Settled) =>
      settled instanceof Error ? reject(settled) : resolve(settled);
    const before = settledTakes.get(id);
    if (before) tell(before);
    else listeners.set(id, [...(listeners.get(id) ?? []), tell]);
  });
}

let wakeUp: () => void = () => undefined;
const wake = (): void => wakeUp();

/** The sender's ear: called when there is something new to send. */
export const onWake = (act: () => void): void => {
  wakeUp = act;
};
