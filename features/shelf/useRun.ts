import { useRef, useState } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { messageOf } from '../api/ask';

export interface Failure {
  shot: ShotSummary;
  problem: string;
}

/** Something done with several shots, as far as it has come. */
export interface Run<What> {
  what: What;
  done: number;
  total: number;
  failed: readonly Failure[];
  /** Not begun when it was stopped. */
  left: readonly ShotSummary[];
  over: boolean;
}

/** At a time: the server encodes with all its cores, more would only wait. */
const AT_ONCE = 2;

/**
 * Does one thing with several shots. One that fails does not stop the others.
 * @param work what each thing is
 */
export function useRun<What extends string>(
  work: Record<What, (shot: ShotSummary) => Promise<unknown>>,
) {
  const [run, setRun] = useState<Run<What> | null>(null);
  const stopped = useRef(false);
  const start = async (what: What, shots: readonly ShotSummary[]) => {
    stopped.current = false;
    const queue = [...shots];
    const failed: Failure[] = [];
    let done = 0;
    const show = (over: boolean) =>
      setRun({
        what,
        done,
        total: shots.length,
        failed: [...failed],
        left: over ? [...queue] : [],
        over,
      });
    show(false);
    const next = async (): Promise<void> => {
      const shot = stopped.current ? undefined : queue.shift();
      if (!shot) return;
      await work[what](shot).catch((error: unknown) =>
        failed.push({ shot, problem: messageOf(error) }),
      );
      done += 1;
      show(false);
      return next();
    };
    await Promise.all(Array.from({ length: AT_ONCE }, next));
    show(true);
  };
  const stop = () => {
    stopped.current = true;
  };
  return { run, busy: run !== null && !run.over, start, stop };
}
