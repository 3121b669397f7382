import { useEffect, useState } from 'react';
import type { Likeness } from '@/core/contracts/likeness';
import { api } from '../api/client';
import { pictureQuery, type PictureWish } from '../api/picture';

export interface ChartState {
  points: readonly Likeness[];
  working: boolean;
  stop: () => void;
}

/** From coarse to fine: the ends and the middle first. */
const STEPS = [60, 90, 30, 75, 45, 95, 20, 82, 68, 52];
const PAUSE = 500;

/** Bytes and likeness over quality for this very picture: the quality in hand first, then others. */
export function useChart(
  shotId: string,
  revision: number,
  wish: PictureWish,
  on: boolean,
): ChartState {
  const [points, setPoints] = useState<readonly Likeness[]>([]);
  const [working, setWorking] = useState(false);
  const [stopped, setStopped] = useState<string | null>(null);
  const { quality = 85, maxBytes: _, ...rest } = wish;
  const picture = `${shotId} ${revision} ${pictureQuery(rest)}`;
  const key = `${picture} ${quality}`;
  useEffect(() => setPoints([]), [picture]);
  useEffect(() => {
    if (!on || stopped === picture) return;
    const abort = new AbortController();
    const work = async () => {
      setWorking(true);
      for (const step of [quality, ...STEPS.filter((s) => s !== quality)]) {
        const point = await api.likeness(shotId, { ...rest, quality: step }, abort.signal);
        if (abort.signal.aborted) return;
        setPoints((all) =>
          [...all.filter((p) => p.quality !== point.quality), point].sort(
            (a, b) => a.quality - b.quality,
          ),
        );
      }
      setWorking(false);
    };
    const timer = setTimeout(() => {
      work().catch(() => !abort.signal.aborted && setWorking(false));
    }, PAUSE);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
    // The key says everything that the wish does.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, on, stopped]);
  return {
    points,
    working: working && stopped !== picture,
    stop: () => {
      setStopped(picture);
      setWorking(false);
    },
  };
}
