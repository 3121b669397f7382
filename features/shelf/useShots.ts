import { useCallback, useEffect, useRef, useState } from 'react';
import type { Count, Help } from '@/core/contracts/search';
import type { ShotSummary } from '@/core/contracts/shot';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { useOutbox, type Waiting } from '../outbox/outbox';
import { useAsked, type Asked } from './search/asked';

const PAGE = 100;
/** Of what is searched for: it is shown sooner, and the next ones come as one scrolls. */
const FOUND = 60;
/** Between the last letter typed and the asking, ms. */
const PAUSE = 15;

export interface ShotList {
  shots: ShotSummary[];
  /** Takes that are safe in this browser but not stored yet. */
  waiting: Waiting[];
  /** Of everything, or of the bin; null where something is asked for. */
  total: number | null;
  /** How many fit what is asked for; null while that is counted. */
  count: Count | null;
  /** Words were found within others only. */
  inside: boolean;
  help: Help | undefined;
  /** The page answers what is asked for, not what was asked before. */
  loaded: boolean;
  more: boolean;
  problem: string | null;
  loadMore: () => void;
  reload: () => void;
  /** Some of a shot is another now; the rest stays, whatever it has become meanwhile. */
  amend: (id: string, change: Partial<ShotSummary>) => void;
  remove: (id: string) => void;
}

interface Page {
  shots: ShotSummary[];
  next: string | null;
  total: number | null;
  inside: boolean;
  help?: Help | undefined;
}

const none: Page = { shots: [], next: null, total: null, inside: false };

async function pageOf(
  { text, order, bin }: Asked,
  before: string | null,
  signal?: AbortSignal,
): Promise<Page> {
  const q = text.trim();
  const place = { bin, before };
  if (!q) return { ...none, ...(await api.shots({ ...place, limit: PAGE })) };
  // The blank at the end says that the last word is whole.
  const page = await api.findShots({ q: text.trimStart(), order, limit: FOUND, ...place }, signal);
  return { ...none, ...page, inside: page.inside ?? false };
}

/** The shots of the Shelf or the bin, or what is asked for, page by page as they are scrolled to. */
export function useShots(): ShotList {
  const { text, order, bin } = useAsked();
  const storedCount = useOutbox((o) => o.storedCount);
  const waiting = useOutbox((o) => o.waiting);
  const [page, setPage] = useState(none);
  const [count, setCount] = useState<Count | null>(null);
  /** What the page answers. */
  const [answered, setAnswered] = useState<Asked | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [round, setRound] = useState(0);
  const asking = useRef(0);
  useEffect(() => {
    const stop = new AbortController();
    asking.current += 1;
    const own = asking.current;
    const wanted = () => !stop.signal.aborted && asking.current === own;
    const asked = { text, order, bin };
    const ask = async () => {
      try {
        const first = await pageOf(asked, null, stop.signal);
        if (!wanted()) return;
        setPage(first);
        setProblem(null);
        setAnswered(asked);
        setCount(null);
        // After the page: nobody waits for a number.
        if (text.trim()) {
          const counted = await api.countShots(text.trimStart(), bin, stop.signal);
          if (wanted()) setCount(counted);
        }
      } catch (error) {
        if (wanted()) setProblem(messageOf(error));
      }
    };
    const timer = setTimeout(() => void ask(), text ? PAUSE : 0);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [text, order, bin, round, storedCount]);
  const more = useRef(false);
  const { next } = page;
  const loadMore = useCallback(() => {
    if (!next || more.current) return;
    more.current = true;
    const own = asking.current;
    pageOf({ text, order, bin }, next)
      .then((further) => {
        // Another list was asked for meanwhile.
        if (own !== asking.current) return;
        setPage((before) => ({
          ...before,
          shots: [...before.shots, ...further.shots],
          next: further.next,
        }));
      })
      .catch((error: unknown) => setProblem(messageOf(error)))
      .finally(() => {
        more.current = false;
      });
  }, [text, order, bin, next]);
  const asks = text.trim() !== '';
  return {
    shots: page.shots,
    waiting: bin || asks ? [] : waiting,
    total: page.total,
    count,
    inside: page.inside,
    help: page.help,
    loaded:
      answered !== null &&
      answered.text === text &&
      answered.order === order &&
      answered.bin === bin,
    more: next !== null,
    problem,
    loadMore,
    reload: useCallback(() => setRound((n) => n + 1), []),
    amend: useCallback(
      (id: string, change: Partial<ShotSummary>) =>
        setPage((p) => ({
          ...p,
          shots: p.shots.map((s) => (s.id === id ? { ...s, ...change } : s)),
        })),
      [],
    ),
    remove: useCallback((id: string) => {
      setPage((p) => ({
        ...p,
        shots: p.shots.filter((s) => s.id !== id),
        total: p.total === null ? null : p.total - 1,
      }));
      setCount((c) => (c && !c.more ? { ...c, count: Math.max(0, c.count - 1) } : c));
    }, []),
  };
}
