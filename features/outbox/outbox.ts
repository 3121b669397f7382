import { documentSchema } from '@/core/document/document';
import { create } from 'zustand';
import type { Stored } from '@/core/contracts/shot';
import { held, type HeldEntry, type OutboxEntry } from './db';

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

const toWaiting = (entry: Omit<OutboxEntry, 'picture'>): Waiting => ({
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

/** Takes by id until they are held, which a large picture's encoding makes long; else a failure. */
const beingPut = new Map<string, Promise<unknown>>();

/** Counts work that ends with a take being safe. */
export async function untilSafe<T>(id: string, work: Promise<T>): Promise<T> {
  putting += 1;
  beingPut.set(id, work);
  try {
    return await work;
  } finally {
    putting -= 1;
    beingPut.delete(id);
  }
}

/** Puts a take into the outbox; once this resolves, a reload does not lose it. */
export async function putInOutbox(entry: OutboxEntry): Promise<void> {
  await hold(entry);
  wake();
}

async function hold(entry: OutboxEntry): Promise<void> {
  const { picture, size, ...rest } = entry;
  const bytes = await picture.arrayBuffer();
  // Two numbers: whoever says the size by the picture itself would have all its pixels copied.
  const numbers = size && { size: { width: size.width, height: size.height } };
  await (await held()).put('outbox', { ...rest, ...numbers, bytes, type: picture.type });
  useOutbox.setState(({ waiting }) => ({
    waiting: [...waiting.filter((w) => w.id !== entry.id), toWaiting(entry)],
  }));
}

const toEntry = ({ bytes, type, ...rest }: HeldEntry): OutboxEntry => ({
  ...rest,
  picture: new Blob([bytes], { type }),
});

/** A take that the server may not have yet; one that is on its way in is waited for. */
export async function fromOutbox(id: string): Promise<OutboxEntry | undefined> {
  await beingPut.get(id)?.catch(() => undefined);
  const entry = await (await held()).get('outbox', id);
  if (!entry) return undefined;
  // An older Rezzik may have held it.
  const document = entry.document && documentSchema.parse(entry.document);
  return { ...toEntry(entry), ...(document && { document }) };
}

/** The ids of what is held; the pictures are large and read one at a time. */
export const heldIds = async (): Promise<string[]> => (await held()).getAllKeys('outbox');

/** Reads what an earlier visit left, or another tab holds. */
export async function readOutbox(): Promise<void> {
  const entries = await (await held()).getAll('outbox');
  useOutbox.setState({ waiting: entries.map(toWaiting) });
}

/** Another tab brought a take to the server. */
export const noLongerWaits = (id: string): void =>
  useOutbox.setState(({ waiting }) => ({ waiting: waiting.filter((w) => w.id !== id) }));

export async function dropFromOutbox(id: string): Promise<void> {
  await (await held()).delete('outbox', id);
  noLongerWaits(id);
}

export async function markRefused(entry: OutboxEntry, why: string): Promise<void> {
  await hold({ ...entry, refused: why });
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
