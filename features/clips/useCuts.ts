import { useRef, useState } from 'react';
import type { Clip } from '@/core/contracts/clip';
import type { Cuts } from '@/core/clip/cuts';
import { messageOf } from '../api/ask';
import { api } from '../api/client';

/** What is cut away of a clip: every step can be undone, and each is stored as it is made. */
export function useCuts(clip: Clip) {
  const [steps, setSteps] = useState<{ all: readonly Cuts[]; at: number }>({
    all: [clip.cuts],
    at: 0,
  });
  const [problem, setProblem] = useState<string | null>(null);
  const revision = useRef(clip.revision);
  /** One after the other: each builds on the revision that the one before got. */
  const storing = useRef(Promise.resolve());
  const cuts = steps.all[steps.at] ?? clip.cuts;

  const store = (next: Cuts) => {
    storing.current = storing.current.then(async () => {
      try {
        revision.current = await api.changeCuts(clip.id, revision.current, next);
        setProblem(null);
      } catch (error) {
        setProblem(messageOf(error));
      }
    });
  };
  const go = (to: number) => {
    const next = steps.all[to];
    if (!next) return;
    setSteps({ ...steps, at: to });
    store(next);
  };
  return {
    ...{ cuts, problem },
    /** All is stored that was changed. */
    stored: () => storing.current,
    change: (next: Cuts) => {
      if (next === cuts || JSON.stringify(next) === JSON.stringify(cuts)) return;
      const all = [...steps.all.slice(0, steps.at + 1), next];
      setSteps({ all, at: all.length - 1 });
      store(next);
    },
    undo: () => go(steps.at - 1),
    redo: () => go(steps.at + 1),
    canUndo: steps.at > 0,
    canRedo: steps.at < steps.all.length - 1,
  };
}
