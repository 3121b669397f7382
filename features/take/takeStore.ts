import { create } from 'zustand';
import type { Rect } from '@/core/geometry/rect';
import { messageOf } from '../api/client';
import { encodeFrame } from '../pictures/pictures';
import { finishTake } from './finish';
import { useSettings } from './settingsStore';
import { deskSource } from './sources/desk';
import { screenSource } from './sources/screen';
import type { Source, Stilled } from './sources/contract';

export const sources = { desk: deskSource, screen: screenSource } as const;

type Phase =
  | { name: 'ready' }
  | { name: 'counting'; until: number; seconds: number }
  | { name: 'stilling' }
  | { name: 'choosing'; stilled: Stilled; png: Promise<Blob> }
  /** Taken, and Mark is about to open: nothing is worth drawing here any more. */
  | { name: 'leaving' };

interface TakeStore {
  source: Source['name'];
  display: string;
  phase: Phase;
  problem: string | null;
}

export const useTake = create<TakeStore>(() => ({
  source: 'desk',
  display: 'Left',
  phase: { name: 'ready' },
  problem: null,
}));

let countdown: ReturnType<typeof setTimeout> | undefined;
/** Raised by every start and every Esc, so that work of an abandoned take ends without a trace. */
let attempt = 0;

/** Starts a take as set: at once, or after the delay. */
export function startTake(): void {
  const { phase } = useTake.getState();
  if (phase.name !== 'ready') return;
  const { delay } = useSettings.getState().settings;
  attempt += 1;
  const mine = attempt;
  useTake.setState({ problem: null });
  if (delay === 0) {
    void still(mine);
    return;
  }
  useTake.setState({
    phase: { name: 'counting', until: Date.now() + delay * 1000, seconds: delay },
  });
  countdown = setTimeout(() => void still(mine), delay * 1000);
}

/** Esc: back to where one was, with nothing left behind. */
export function cancelTake(): void {
  attempt += 1;
  clearTimeout(countdown);
  const { phase } = useTake.getState();
  if (phase.name === 'choosing') phase.stilled.picture.close();
  useTake.setState({ phase: { name: 'ready' } });
}

async function still(mine: number): Promise<void> {
  const { source, display } = useTake.getState();
  const { kind } = useSettings.getState().settings;
  useTake.setState({ phase: { name: 'stilling' } });
  try {
    const stilled = await sources[source].still(display);
    if (mine !== attempt) {
      stilled.picture.close();
      return;
    }
    // Encoding begins while the region is being chosen, so confirming has nothing to wait for.
    const png = encodeFrame(stilled.picture);
    png.catch(() => undefined);
    if (kind === 'full') {
      const { width, height } = stilled.picture;
      confirmTake(stilled, png, { x: 0, y: 0, width, height });
    } else {
      useTake.setState({ phase: { name: 'choosing', stilled, png } });
      if (document.hidden) document.title = 'Choose the region – Rezzik';
    }
  } catch (error) {
    if (mine === attempt) useTake.setState({ phase: { name: 'ready' }, problem: messageOf(error) });
  }
}

/** The chosen part of a stilled picture becomes a shot. */
export function confirmTake(stilled: Stilled, png: Promise<Blob>, crop: Rect): void {
  const { thenMark } = useSettings.getState().settings;
  useTake.setState({ phase: { name: thenMark ? 'leaving' : 'ready' } });
  finishTake(stilled, png, crop);
}
