import { useRef, useState } from 'react';
import type { Clip, CutState } from '@/core/contracts/clip';
import type { Cuts } from '@/core/clip/cuts';
import { messageOf } from '../api/ask';
import { api } from '../api/client';

const isSame = (a: Cuts, b: Cuts): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What is cut away of a clip: each change is stored as it is made, and every one can be undone. */
export function useCuts(clip: Clip) {
  const latest = useRef<CutState>(clip);
  const [now, setNow] = useState<CutState>(clip);
  const [problem, setProblem] = useState<string | null>(null);
  /** One after the other: each builds on what the one before led to. */
  const storing = useRef(Promise.resolve());
  const show = (state: CutState) => {
    latest.current = state;
    setNow(state);
  };
  const next = (act: () => Promise<void>) => {
    storing.current = storing.current.then(act).then(
      () => setProblem(null),
      (error: unknown) => setProblem(messageOf(error)),
    );
  };
  const go = (by: 1 | -1) =>
    next(async () => {
      const { revision, step, steps } = latest.current;
      const to = step + by;
      if (to >= 0 && to <= steps) show(await api.changeCuts(clip.id, { revision, step: to }));
    });
  return {
    ...{ cuts: now.cuts, problem },
    /** All is stored that was changed. */
    stored: () => storing.current,
    /** @param make the new cuts, of those that there are by then */
    change: (make: (cuts: Cuts) => Cuts) =>
      next(async () => {
        const { revision, step, cuts } = latest.current;
        const made = make(cuts);
        if (isSame(made, cuts)) return;
        // Seen before it is stored.
        show({ revision, cuts: made, step: step + 1, steps: step + 1 });
        show(await api.changeCuts(clip.id, { revision, cuts: made }));
      }),
    undo: () => go(-1),
    redo: () => go(1),
    canUndo: now.step > 0,
    canRedo: now.step < now.steps,
  };
}
