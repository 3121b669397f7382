import { useEffect } from 'react';
import type { Routine } from '@/core/contracts/way';
import { useKey } from '../keys/useKey';
import { readLooks } from '../looks/lookStore';
import { readRoutines, runRoutine, useRoutines } from './routineStore';
import { useTake } from './takeState';

/** The keys of the routines, in every view; a view's own key comes first. */
export function RoutineKeys() {
  const routines = useRoutines((s) => s.routines);
  // A take waits for nothing, so what routines give is known before.
  useEffect(() => {
    void readRoutines().catch(() => undefined);
    void readLooks().catch(() => undefined);
  }, []);
  return routines.map((routine) => <RoutineKey key={routine.id} routine={routine} />);
}

function RoutineKey({ routine }: { routine: Routine }) {
  const ready = useTake((s) => s.phase.name === 'ready');
  useKey(routine.key ?? '', () => runRoutine(routine), { enabled: ready, layer: 'routine' });
  return null;
}
