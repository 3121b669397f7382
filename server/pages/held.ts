import type { PageStill, PageWish } from '@/core/contracts/page';
import { asLine } from '@/core/values/text';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import { shared } from '../base/shared';
import pLimit, { type LimitFunction } from 'p-limit';
import { takeIn } from '../frames/intake';
import { rememberWords } from '../words/known';
import { provenanceOf } from './provenance';
import { checkPagesAllowed, reachNow } from './reachNow';
import { takePage, type TakenPage } from './takePage';

/** Pictures of pages wait here while a person chooses on them; few, and not for ever. */
const MOST = 3;
const STAYS = 10 * 60_000;

interface Held {
  still: PageStill;
  bytes: Uint8Array;
  parts: TakenPage['parts'];
}

const stills = shared('pageStills', () => new Map<string, Held>());
/** What goes on with those that are still taken. */
const going = shared('pageStillsGoing', () => new Map<string, string>());
const one = shared<{ atATime: LimitFunction }>('pageOne', () => ({ atATime: pLimit(1) }));

/**
 * Takes a page and holds its picture, for whoever gave it this id.
 * @throws Fault 403, 409, 422, 502, 503
 */
export async function holdPage(
  id: string,
  { allowPrivate, ...page }: PageWish,
  signal: AbortSignal,
): Promise<PageStill> {
  await checkPagesAllowed();
  going.set(id, 'Waits for its turn …');
  try {
    const reach = await reachNow(page.address, allowPrivate);
    const tell = (words: string) => void going.set(id, words);
    const taken = await one.atATime(() => {
      signal.throwIfAborted();
      tell('Asks for the page …');
      return takePage(page, reach, tell, signal);
    });
    const { bytes, width, height } = await takeIn(taken.bytes);
    const { address = '', takenAt, windowTitle } = provenanceOf(taken);
    if (taken.words) rememberWords({ address, takenAt }, taken.words);
    const title = windowTitle ?? asLine(new URL(address).host, limits.titleLength);
    const still = { id, takenAt, width, height, title, address, said: taken.said };
    stills.set(id, { still, bytes, parts: taken.parts });
    for (const old of [...stills.keys()].slice(0, -MOST)) stills.delete(old);
    setTimeout(() => stills.delete(id), STAYS).unref();
    return still;
  } finally {
    going.delete(id);
  }
}

/** What goes on with one that is being taken; null when nothing does. */
export const progressOf = (id: string): string | null => going.get(id) ?? null;

/** @throws Fault 410 when it was let go */
export function heldPage(id: string): Held {
  const found = stills.get(id);
  if (!found) throw new Fault(410, 'gone', 'This page is no longer held. Take it again.');
  return found;
}

export const dropPage = (id: string): void => void stills.delete(id);
