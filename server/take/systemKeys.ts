import pLimit from 'p-limit';
import type { Routine } from '@/core/contracts/way';
import { getRoutine, listRoutines } from '../routines/routines';
import { allowedScreen, byPortal, checkAllowed } from '../display/access';
import type { Screen } from '../display/connection';
import { grab, MEANT, readKeyboard, ungrab, type Combination } from '../display/keyboard';
import { dropPortalKeys, takePortalKeys } from '../display/portalKeys';
import { rawKeys, type RawKeys } from '../display/rawKeys';
import { runByPortal } from './runByPortal';
import { runOnDisplay } from './runRoutine';
import { shared } from '../base/shared';

interface Grabbed extends Combination {
  routine: string;
  key: string;
}

interface Watch {
  screen: Screen | null;
  /** Also while another program holds the keyboard. */
  raw: RawKeys | null;
  grabbed: Grabbed[];
  /** Why a routine's key does not work, by the routine's id. */
  problems: Map<string, string>;
}

const fresh: Watch = { screen: null, raw: null, grabbed: [], problems: new Map() };
const watch = shared('systemKeys', () => fresh);

/** Changes of the keyboard come several at once, ms. */
const SETTLES = 100;
let settling: NodeJS.Timeout | undefined;

/** Another layout: a key may lie elsewhere now. */
function changed(): void {
  clearTimeout(settling);
  settling = setTimeout(() => void watchKeys().catch(() => undefined), SETTLES);
}

/** How often a display that was gone is looked for again. */
const EVERY = 5000;

export const systemKeyProblem = (routine: string): string | undefined =>
  watch.problems.get(routine);

/**
 * Takes the routines' system keys on the display, as they are set now. Where that cannot be, each
 * routine knows why, and it is tried again by itself.
 */
export const watchKeys = (): Promise<void> => inTurn(watchNow);

/** One at a time: what was set last holds. */
const inTurn = pLimit(1);

async function watchNow(): Promise<void> {
  const wanted = (await listRoutines()).filter((r) => r.systemKey && !r.unconfirmed);
  try {
    await checkAllowed();
    if (await byPortal()) {
      watch.problems = await takePortalKeys(wanted, pressPortalKey);
      return;
    }
    dropPortalKeys();
    watch.problems = await takeKeys(await allowedScreen(), wanted);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    watch.problems = new Map(wanted.map(({ id }) => [id, why]));
    watch.screen = null;
    watch.grabbed = [];
    dropPortalKeys();
  }
}

/** @returns why a routine's key does not work, by the routine's id */
async function takeKeys(screen: Screen, wanted: readonly Routine[]): Promise<Watch['problems']> {
  const problems: Watch['problems'] = new Map();
  if (watch.screen !== screen) {
    watch.grabbed = [];
    watch.screen = screen;
    screen.X.on('event', (event) => {
      if (event.name === 'MappingNotify') changed();
      else if (event.name === 'KeyPress') press(screen, event.keycode, event.buttons & MEANT);
    });
    watch.raw = await rawKeys(screen, isGrabbed, (code, bits) => press(screen, code, bits));
  }
  await watch.raw?.listen(wanted.length > 0);
  // What is taken already stays taken meanwhile: no press may fall between old and new.
  const before = watch.grabbed;
  const now: Grabbed[] = [];
  const keyboard = wanted.length > 0 ? await readKeyboard(screen) : null;
  for (const { id, systemKey } of wanted) {
    const combination = keyboard?.combination(systemKey ?? '');
    if (!combination) problems.set(id, 'This keyboard has no such key.');
    else if (await grab(screen, combination)) {
      now.push({ ...combination, routine: id, key: systemKey ?? '' });
    } else problems.set(id, 'Another program has this key already.');
  }
  watch.grabbed = now;
  const isKept = (old: Grabbed) =>
    now.some((key) => key.code === old.code && key.modifiers === old.modifiers);
  for (const old of before) if (!isKept(old)) ungrab(screen, old);
  return problems;
}

/** Keeps the keys taken while Rezzik runs, also when the display comes later or again. */
export function startWatching(): void {
  void watchKeys().catch(() => undefined);
  setInterval(() => {
    if (watch.screen && !watch.screen.X.stream.destroyed) return;
    void watchKeys().catch(() => undefined);
  }, EVERY).unref();
}

/** Presses that wait for the take before them, which may still be stored; more are a stuck key. */
const MOST_WAITING = 3;
let waiting = 0;
let last: Promise<void> = Promise.resolve();

const isGrabbed = (code: number): boolean => watch.grabbed.some((key) => key.code === code);

function press(screen: Screen, code: number, bits: number): void {
  if (watch.screen !== screen) return;
  const pressed = watch.grabbed.find((key) => key.code === code && key.modifiers === bits);
  if (pressed) inOrder(async () => runOnDisplay(await getRoutine(pressed.routine)));
}

const pressPortalKey = (routine: string): void =>
  inOrder(async () => runByPortal(await getRoutine(routine)));

function inOrder(take: () => Promise<void>): void {
  if (waiting > MOST_WAITING) return;
  waiting += 1;
  last = last
    .then(take)
    .catch((error: unknown) => console.error(error))
    .finally(() => {
      waiting -= 1;
    });
}
