import { useEffect, useEffectEvent, type RefObject } from 'react';
import { pictureAt } from '@/core/clip/cuts';
import type { Clip } from '@/core/contracts/clip';
import { documentAt, isUntouched } from '@/core/document/atPicture';
import { paintView } from '../pictures/pictures';

/** What is looked at is painted no larger than that, pixels across: it is to keep up. */
const LARGEST = 1280;

/** After so long it is tried again, ms, and so often in a row. */
const AGAIN = 250;
const TRIES = 40;
/** When the picture that was gone to is there. */
const ARRIVED = ['loadeddata', 'seeked'] as const;

/**
 * Shows what is seen of a film with what lies on it, painted as it leaves; while it plays, as often
 * as the painter keeps up. @returns false where nothing lies on it: then the film itself is shown
 */
export function usePainted(
  video: RefObject<HTMLVideoElement | null>,
  canvas: RefObject<HTMLCanvasElement | null>,
  clip: Clip,
): boolean {
  const { marksRevision } = clip;
  const isPainted = !isUntouched(clip.document, clip);
  // Not of its dependencies: the same clip is read again and again until all is known of it.
  const numberAt = useEffectEvent((at: number) => pictureAt(clip.times, at));
  const paintAt = useEffectEvent((frame: ImageBitmap, at: number) => {
    const { document, times, leaves, width, height } = clip;
    const shown = documentAt(document, pictureAt(times, at), { width, height });
    return paintView(frame, shown, Math.min(1, LARGEST / leaves.width));
  });
  useEffect(() => {
    const element = video.current;
    if (!isPainted || !element) return;
    let wanted = true;
    /** When the picture comes that is to be painted next, seconds. */
    let next: number | null = null;
    let busy = false;
    const paint = async () => {
      if (busy) return;
      busy = true;
      while (next !== null && wanted) {
        const at = next;
        next = null;
        const frame = await createImageBitmap(element);
        const seen = await paintAt(frame, at);
        frame.close();
        if (wanted) draw(canvas.current, seen);
        seen.close();
      }
      busy = false;
    };
    /** The picture that was told of last. */
    let told = -1;
    let tries = 0;
    let again: ReturnType<typeof setTimeout> | undefined;
    const ask = (at: number) => {
      next = at;
      paint().then(
        () => (tries = 0),
        () => {
          [busy, told] = [false, -1];
          clearTimeout(again);
          tries += 1;
          // On a busy machine there may be no picture to be had yet.
          if (tries < TRIES) again = setTimeout(inSight, AGAIN);
        },
      );
    };
    const inSight = () => {
      const isThere = element.readyState >= element.HAVE_CURRENT_DATA && !element.seeking;
      if (wanted && isThere && numberAt(element.currentTime) !== told) ask(element.currentTime);
    };
    const watch = () =>
      element.requestVideoFrameCallback((_, { mediaTime }) => {
        if (!wanted) return;
        told = numberAt(mediaTime);
        ask(mediaTime);
        watch();
      });
    watch();
    // What is in sight already is not told again, nor is each picture that is gone to told at once.
    inSight();
    for (const event of ARRIVED) element.addEventListener(event, inSight);
    return () => {
      wanted = false;
      clearTimeout(again);
      for (const event of ARRIVED) element.removeEventListener(event, inSight);
    };
  }, [video, canvas, isPainted, marksRevision]);
  return isPainted;
}

function draw(canvas: HTMLCanvasElement | null, picture: ImageBitmap): void {
  if (!canvas) return;
  Object.assign(canvas, { width: picture.width, height: picture.height });
  canvas.getContext('2d')?.drawImage(picture, 0, 0);
}
