import { create } from 'zustand';
import type { Routine, Way } from '@/core/contracts/way';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { kindFacts } from './kinds';
import { sources } from './sources/list';
import { useTake } from './takeState';
import { dropTake, startTake } from './takeStore';

interface RoutineStore {
  routines: readonly Routine[];
  /** Those that came in with an archive and take nothing yet. */
  unconfirmed: readonly Routine[];
}

/** The named ways of taking, in their order. */
export const useRoutines = create<RoutineStore>(() => ({ routines: [], unconfirmed: [] }));

export async function readRoutines(): Promise<void> {
  const all = await api.routines();
  useRoutines.setState({
    routines: all.filter((routine) => !routine.unconfirmed),
    unconfirmed: all.filter((routine) => routine.unconfirmed),
  });
}

/** Takes exactly as the routine was written, whatever is set now; what is in hand stays as it is. */
export const runRoutine = ({ way, name }: Routine): void => startTake(way, name);

/** The same on a picture that was stilled when the routine's key was pressed elsewhere. */
export async function chooseOnHeld(wanted: { routine: string; still: string }): Promise<void> {
  const routines = await api.routines().catch((error: unknown) => {
    useTake.setState({ problem: messageOf(error) });
    return [];
  });
  const routine = routines.find((r) => r.id === wanted.routine && !r.unconfirmed);
  if (!routine) return;
  // Whoever presses the key again means the newer picture.
  if (useTake.getState().phase.name !== 'ready') dropTake();
  const way: Way = { ...routine.way, source: 'display', delay: 0 };
  startTake(way, routine.name, wanted.still);
}

/** The routine that looks back, whose system key was pressed elsewhere. */
export async function lookBackBy(id: string): Promise<void> {
  const routine = (await api.routines().catch(() => [])).find((r) => r.id === id && !r.unconfirmed);
  if (!routine) return;
  if (useTake.getState().phase.name !== 'ready') dropTake();
  runRoutine(routine);
}

/** A way in a few words: “Region · 3 s · copy”. */
export function describeWay(way: Way): string {
  const { label } = kindFacts(way.kind);
  const what = way.kind === 'window' && way.inUse ? 'Window in use' : label;
  const then = way.ask ? 'ask' : way.then.map((step) => step.do).join(', ');
  // A clip opens in a view of its own.
  const becomes = way.kind !== 'clip' && (then || 'Shelf only');
  return [what, way.delay > 0 && `${way.delay} s`, way.pointer && 'pointer', becomes]
    .filter(Boolean)
    .join(' · ');
}

export const sourceLabel = (way: Way): string => sources[way.source].label;
