import { useEffect, useEffectEvent, useState } from 'react';
import { messageOf } from './ask';

interface Options<T> {
  /** Pause after the key changed before it is asked, ms: a pulled slider asks once. */
  after?: number;
  /** The answer to the key before stands until the next one is there. */
  keep?: boolean;
  /** After how many ms it is asked again; null for never. @param answer null where there was none */
  next?: (answer: T | null) => number | null;
}

interface Held<T> {
  key: string;
  round: number;
  answer: T | null;
  problem: string | null;
}

export interface Answer<T> {
  /** Null until there is one. */
  answer: T | null;
  /** Why there is none, or no newer one, in words for the person. */
  problem: string | null;
  /** True while it is asked, or about to be. */
  asking: boolean;
  again: () => void;
}

/**
 * Asks the server for what a view shows, and anew when the key changes. What comes for an earlier
 * key is dropped.
 */
export function useAnswer<T>(
  ask: (signal: AbortSignal) => Promise<T>,
  key: string,
  { after = 0, keep = false, next }: Options<T> = {},
): Answer<T> {
  const [round, setRound] = useState(0);
  const [held, setHeld] = useState<Held<T>>({ key, round: -1, answer: null, problem: null });
  const asked = useEffectEvent(ask);
  const pauseUntilNext = useEffectEvent((answer: T | null) => next?.(answer) ?? null);
  useEffect(() => {
    const stop = new AbortController();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const settle = (answer: T | null, problem: string | null) => {
      if (stop.signal.aborted) return;
      setHeld((before) => ({
        key,
        round,
        answer: problem !== null && (keep || before.key === key) ? before.answer : answer,
        problem,
      }));
      const pause = pauseUntilNext(answer);
      if (pause !== null) timer = setTimeout(() => setRound((n) => n + 1), pause);
    };
    const begin = () =>
      void asked(stop.signal).then(
        (answer) => settle(answer, null),
        (error: unknown) => settle(null, messageOf(error)),
      );
    if (after > 0) timer = setTimeout(begin, after);
    else begin();
    return () => {
      stop.abort();
      clearTimeout(timer);
    };
  }, [key, round, after, keep]);
  const current = held.key === key;
  return {
    answer: current || keep ? held.answer : null,
    problem: current ? held.problem : null,
    asking: !current || held.round !== round,
    again: () => setRound((n) => n + 1),
  };
}
