import { useEffect } from 'react';
import type { PageDue, PageSource } from '@/core/contracts/series';
import { firstWay } from '@/core/contracts/way';
import { outerPixels, type Rect } from '@/core/geometry/rect';
import { visiblePart } from '@/core/region/windowChoice';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { encodeFrame } from '../pictures/pictures';
import { useCamera } from '../take/sources/camera/camera';
import { sources } from '../take/sources/list';
import { useScreen } from '../take/sources/screen/screen';
import type { Stilled } from '../take/sources/contract';

/** Looks for what is due so often, ms, where there are series of what this page has, and where not. */
const SOON = 1_000;
/** A new one is seen before its first time is given up. */
const SELDOM = 4_000;

/** What this page has now. */
const had = (): PageSource[] => [
  ...(useScreen.getState().stream ? (['screen'] as const) : []),
  ...(useCamera.getState().stream ? (['camera'] as const) : []),
];

async function fileOf(stilled: Stilled, region: Rect | null): Promise<Blob> {
  if (!region) return stilled.png ?? encodeFrame(stilled.picture);
  const part = visiblePart(region, stilled.picture);
  if (!part) throw new Error('Nothing of that region is in the picture.');
  const { x, y, width, height } = outerPixels(part);
  const cut = await createImageBitmap(stilled.picture, x, y, width, height);
  return encodeFrame(cut).finally(() => cut.close());
}

async function take({ id, source, region }: NonNullable<PageDue['due']>): Promise<void> {
  try {
    const stilled = await sources[source].still({ ...firstWay, display: 'all' });
    const form = new FormData();
    try {
      form.set('frame', await fileOf(stilled, region));
    } finally {
      stilled.letGo?.();
      stilled.picture.close();
    }
    form.set('provenance', JSON.stringify(stilled.provenance));
    await api.bringSeriesPicture(id, form);
  } catch (error) {
    await api.missSeriesDue(id, messageOf(error).slice(0, 500)).catch(() => undefined);
  }
}

/** @returns how long until the next look, ms */
async function look(): Promise<number> {
  const sourcesHad = had();
  if (sourcesHad.length === 0) return SELDOM;
  try {
    const { due, waits } = await api.claimSeriesDue(sourcesHad);
    if (due) await take(due);
    return waits ? SOON : SELDOM;
  } catch {
    // The server is away: whoever takes or marks is told of that.
    return SELDOM;
  }
}

/** While this page has a shared screen or a camera, series of it are taken here. */
export function useSeriesHere(): void {
  const screen = useScreen((s) => s.stream !== null);
  const camera = useCamera((s) => s.stream !== null);
  useEffect(() => {
    if (!screen && !camera) return;
    // Timers of a page that is out of sight come once a minute; those of a worker come.
    const clock = new Worker(new URL('../../workers/clock.worker.ts', import.meta.url));
    let next = 0;
    let busy = false;
    clock.onmessage = () => {
      if (busy || performance.now() < next) return;
      busy = true;
      void look().then((pause) => {
        busy = false;
        next = performance.now() + pause - SOON / 2;
      });
    };
    return () => clock.terminate();
  }, [screen, camera]);
}
