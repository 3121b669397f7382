import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import pLimit, { type LimitFunction } from 'p-limit';
import type { HeldAnswer, HeldMoments } from '@/core/contracts/held';
import { callsOf, type Calls } from '../../base/acrossThreads';
import { Fault } from '../../base/fault';
import { env } from '../../base/env';
import { shared } from '../../base/shared';
import { getSettings } from '../../settings/settings';
import { byPortal, checkAllowed } from '../access';
import { unavailable } from '../connection';
import { hearLock } from './locked';
import { tellPages } from '../openPages';
import type { Still } from '../still';
import type { Holding } from './thread';

const MEGABYTE = 1024 * 1024;
/** Nobody has asked for so long, ms: every page is closed, and what is held would be seen by nobody. */
const UNASKED = 150_000;
/** So long the moments stay as they are once they were asked for, ms, unless they are asked for again. */
const STILLED = 60_000;

const NONE = 'Nothing is held. Switch on “Hold the last 10 s” first.';
const GONE = 'That moment is no longer held. Look back once more.';

interface Running {
  /** A locked screen is heard of. */
  locks: boolean;
  worker: Worker;
  thread: Calls<Holding>;
  /** Ends it when nobody asks any more. */
  unasked: NodeJS.Timeout;
  stilled?: NodeJS.Timeout;
}
interface Kept {
  running: Running | null;
  /** Why it ended by itself. */
  why: string | null;
  /** Two pages that begin at once begin one. */
  inTurn: LimitFunction;
}
const kept = shared<Kept>('held', () => ({ running: null, why: null, inTurn: pLimit(1) }));

/** How holding stands. Whoever asks keeps it going. */
export async function heldAnswer(): Promise<HeldAnswer> {
  const { running, why } = kept;
  if (!running) return { on: false, ...(why && { why }) };
  running.unasked.refresh();
  const facts = await running.thread.facts();
  return facts ? { on: true, locks: running.locks, ...facts } : { on: false };
}

/** Begins to hold the last seconds of this computer's screen. @throws Fault 403, 409, 503 */
export const startHolding = (): Promise<HeldAnswer> => kept.inTurn(start);

async function start(): Promise<HeldAnswer> {
  await checkAllowed();
  const { display } = env();
  if (!display) throw unavailable('Rezzik was started without a display.');
  if (await byPortal())
    throw new Fault(
      409,
      'no-moments',
      'This desktop gives one picture at a time, after being asked.',
    );
  if (kept.running) {
    goOn();
    return heldAnswer();
  }
  const { heldMegabytes } = await getSettings();
  // The package for X closes descriptors that it has handed over by itself. Node, at the end of a
  // thread, would close those numbers once more, whosever they are by then.
  const tracked = { trackUnmanagedFds: false };
  const worker = new Worker(new URL('./thread.ts', import.meta.url), tracked);
  worker.unref();
  const thread = callsOf<Holding>(worker);
  const unasked = setTimeout(
    () => stopHolding('Every page of Rezzik was closed.'),
    UNASKED,
  ).unref();
  const locks = await hearLock(locked);
  const running: Running = { locks, worker, thread, unasked };
  kept.running = running;
  kept.why = null;
  worker.on('error', (error) => ended(running, error.message));
  try {
    await thread.begin(display, heldMegabytes * MEGABYTE);
  } catch (error) {
    ended(running, null);
    throw error;
  }
  void thread.follow().then(
    (why) => why && ended(running, why),
    () => undefined,
  );
  tellPages({ routine: '', lines: [], held: true });
  return heldAnswer();
}

/** Whoever locks a screen leaves it: nothing that was on it waits for whoever comes. */
function locked(): void {
  const why = 'The screen was locked.';
  stopHolding(why);
  // What pages hold themselves goes, too.
  tellPages({ routine: '', lines: [why], locked: true });
}

/** Hears of locks for pages that hold something themselves. @returns false where no desktop tells */
export const hearLocks = (): Promise<boolean> => hearLock(locked);

/** Nothing of it is left. @param why said to whoever did not ask for it */
export function stopHolding(why: string | null = null): void {
  if (kept.running) ended(kept.running, why);
}

function ended(running: Running, why: string | null): void {
  if (kept.running !== running) return;
  kept.running = null;
  kept.why = why;
  clearTimeout(running.unasked);
  clearTimeout(running.stilled);
  void letGo(running);
  tellPages({ routine: '', lines: why ? [why] : [], held: false });
}

/** How long a thread may take to give back what it has of the display, ms. */
const LEAVES = 2_000;

/** The thread itself closes its connection and the memory it shares with the display; then it goes. */
async function letGo({ worker, thread }: Running): Promise<void> {
  await Promise.race([
    thread.end().catch(() => undefined),
    wait(LEAVES, undefined, { ref: false }),
  ]);
  await worker.terminate();
}

/** The moments, oldest first: none comes or goes for a minute, or until it goes on. @throws Fault 409 */
export async function heldMoments(): Promise<HeldMoments> {
  const running = runningNow();
  stay(running);
  return { now: Date.now(), moments: await running.thread.moments() };
}

export function goOn(): void {
  const { running } = kept;
  if (!running) return;
  clearTimeout(running.stilled);
  running.thread.goOn().catch(() => undefined);
}

/** A moment as it is looked at: a JPEG no wider than so many pixels. @throws Fault 409, 410 */
export async function heldPicture(id: number, width: number): Promise<Uint8Array> {
  const running = runningNow();
  stay(running);
  const picture = await running.thread.picture(id, width);
  if (!picture) throw new Fault(410, 'gone', GONE);
  return picture;
}

/** A moment as if it had been stilled then; windows are as they were seen. @throws Fault 409, 410 */
export async function stillOfMoment(id: number): Promise<Still> {
  const running = runningNow();
  stay(running);
  const held = await running.thread.still(id);
  if (!held) throw new Fault(410, 'gone', GONE);
  // What comes from another thread is made anew around the same bytes.
  const pixels = { ...held.pixels, data: new Uint8ClampedArray(held.pixels.data.buffer) };
  const none = () =>
    Promise.reject(unavailable('Of a moment that is gone, windows are as they were seen.'));
  return {
    ...{ id: randomUUID(), ...held.facts, own: [] },
    pixels: () => Promise.resolve(pixels),
    withOwn: none,
    alone: none,
    letGo: () => undefined,
  };
}

/** The moment in an address. @throws Fault 404 when it cannot be one */
export function readMoment({ moment }: { moment: string }): number {
  if (!/^\d{1,9}$/.test(moment)) throw new Fault(404, 'not-found', 'There is no such moment.');
  return Number(moment);
}

function runningNow(): Running {
  const { running } = kept;
  if (!running) throw new Fault(409, 'not-held', kept.why ?? NONE);
  return running;
}

/** What is looked at stays, for a while. */
function stay(running: Running): void {
  running.unasked.refresh();
  clearTimeout(running.stilled);
  running.stilled = setTimeout(goOn, STILLED).unref();
}
