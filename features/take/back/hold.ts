import type { TakenFrom } from '@/core/contracts/way';
import { messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { notify } from '../../notices/noticeStore';
import { useSettings } from '../../settings/settingsStore';
import { displayHoldingEnded, joinDisplayHolding } from '../sources/display/held';
import { sources } from '../sources/list';
import { useBack, type Film } from './backState';

/** How often it is asked how holding goes, ms. */
const EVERY = 2000;
const MEGABYTE = 1024 * 1024;

let asking: ReturnType<typeof setInterval> | undefined;

/** Begins to hold the last seconds of a source; what was held of another goes. */
export async function startHolding(source: TakenFrom): Promise<void> {
  stopHolding();
  const { holder, can } = sources[source];
  useBack.setState({ begins: true, problem: null });
  try {
    if (can.back !== true || !holder) throw new Error(String(can.back));
    const { heldMegabytes } = useSettings.getState().settings;
    await holder.begin(heldMegabytes * MEGABYTE, (why) => endedByItself(why, source));
    await isOn(source);
  } catch (error) {
    useBack.setState({ problem: messageOf(error) });
  } finally {
    useBack.setState({ begins: false });
  }
}

function isOn(source: TakenFrom): Promise<void> {
  useBack.setState({ on: source, problem: null });
  clearInterval(asking);
  asking = setInterval(() => void readFacts(), EVERY);
  return readFacts();
}

/** Of this computer's screen all pages hear: it is held from now on, or not any more, and why. */
export function heldByServer(held: boolean, why = 'It was switched off in another page.'): void {
  if (!held) return displayHoldingEnded(why);
  const { on, begins } = useBack.getState();
  if (on || begins) return;
  joinDisplayHolding((words) => endedByItself(words, 'display'));
  void isOn('display');
}

/** What is held of this computer's screen goes on over a reload. */
export async function joinHolding(): Promise<void> {
  const { on } = await api.held().catch(() => ({ on: false }));
  if (on) heldByServer(true);
}

/** Nothing is held any more, of any source. */
export function stopHolding(): void {
  const { on } = useBack.getState();
  clearInterval(asking);
  if (on) sources[on].holder?.end();
  useBack.setState({ on: null, facts: null, problem: null });
}

/** Another source is gone to: what was held of the one before goes. */
export function leaveSource(to: TakenFrom): void {
  const { on } = useBack.getState();
  if (on === to) return;
  stopHolding();
}

/** What is held goes without that having been asked for here. @param source of it alone; else whatever it is */
export function endedByItself(why: string, source?: TakenFrom): void {
  const { on } = useBack.getState();
  if (!on || (source && on !== source)) return;
  stopHolding();
  useBack.setState({ problem: why });
  notify({ key: 'holding', tone: 'bad', title: 'Nothing is held any more', lines: [why] });
}

async function readFacts(): Promise<void> {
  const { on } = useBack.getState();
  const facts = on && (await sources[on].holder?.facts().catch(() => null));
  if (facts && useBack.getState().on === on) useBack.setState({ facts });
}

/** The moments of a source, the newest in sight. @throws with words where none is held */
export async function openFilm(source: TakenFrom): Promise<Film> {
  // A page that was opened for it does not know yet what the server holds.
  if (source === 'display' && !useBack.getState().on) await joinHolding();
  const { on } = useBack.getState();
  const { holder } = sources[source];
  if (on !== source || !holder)
    throw new Error('Nothing is held of this yet. Switch on “Hold the last 10 s” first.');
  const moments = await holder.moments();
  if (moments.length === 0) {
    holder.goOn();
    throw new Error('Nothing was seen yet. Look back again in a moment.');
  }
  return { source, moments, now: Date.now(), at: moments.length - 1, chosen: [] };
}

/** The film is put away, and holding goes on. */
export function closeFilm(): void {
  const { film, on } = useBack.getState();
  useBack.setState({ film: null });
  if (film && film.source === on) sources[on].holder?.goOn();
}
