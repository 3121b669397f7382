import { useCallback, useEffect, useRef, useState } from 'react';
import type { ShotSummary } from '@/core/contracts/shot';
import { api, messageOf } from '../api/client';
import { useOutbox, type Waiting } from '../outbox/outbox';

const PAGE = 100;

export interface ShotList {
  shots: ShotSummary[];
  /** Takes that are safe in this browser but not stored yet. */
  waiting: Waiting[];
  total: number;
  loaded: boolean;
  more: boolean;
  problem: string | null;
  loadMore: () => void;
  reload: () => void;
  replace: (shot: ShotSummary) => void;
  remove: (id: string) => void;
}

/** The shots of the Shelf or the bin, page by page as they are scrolled to. */
export function useShots(bin: boolean): ShotList {
  const storedCount = useOutbox((o) => o.storedCount);
  const waiting = useOutbox((o) => o.waiting);
  const [shots, setShots] = useState<ShotSummary[]>([]);
  const [total, setTotal] = useState(0);
  const [next, setNext] = useState<string | null>(null);
  const [loaded, setLoaded] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const asking = useRef(false);
  useEffect(() => {
    let wanted = true;
    asking.current = true;
    api
      .shots({ limit: PAGE, bin })
      .then((page) => {
        if (!wanted) return;
        setShots(page.shots);
        setTotal(page.total);
        setNext(page.next);
        setProblem(null);
        setLoaded(true);
      })
      .catch((error: unknown) => wanted && setProblem(messageOf(error)))
      .finally(() => {
        asking.current = false;
      });
    return () => {
      wanted = false;
    };
  }, [bin, round, storedCount]);
  const loadMore = useCallback(() => {
    if (!next || asking.current) return;
    asking.current = true;
    api
      .shots({ limit: PAGE, bin, before: next })
      .then((page) => {
        setShots((before) => [...before, ...page.shots]);
        setNext(page.next);
      })
      .catch((error: unknown) => setProblem(messageOf(error)))
      .finally(() => {
        asking.current = false;
      });
  }, [bin, next]);
  return {
    shots,
    waiting: bin ? [] : waiting,
    total,
    loaded,
    more: next !== null,
    problem,
    loadMore,
    reload: useCallback(() => setRound((n) => n + 1), []),
    replace: useCallback(
      (shot: ShotSummary) => setShots((all) => all.map((s) => (s.id === shot.id ? shot : s))),
      [],
    ),
    remove: useCallback((id: string) => {
      setShots((all) => all.filter((s) => s.id !== id));
      setTotal((n) => n - 1);
    }, []),
  };
}
