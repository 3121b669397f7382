import { useEffect, type RefObject } from 'react';
import { pictureAt } from '@/core/clip/cuts';
import type { Clip } from '@/core/contracts/clip';
import { documentAt, isUntouched } from '@/core/document/atPicture';
import { paintView } from '../pictures/pictures';

/** What is looked at is painted no larger than that, pixels across: it is to keep up. */
const LARGEST = 1280;

/**
 * Shows what is seen of a film with what lies on it, painted as it leaves; while it plays, as often
 * as the painter keeps up. @returns false where nothing lies on it: then the film itself is shown
 */
export function usePainted(
  video: RefObject<HTMLVideoElement | null>,
  canvas: RefObject<HTMLCanvasElement | null>,
  clip: Clip,
): boolean {
  const { document, times, leaves, width, height } = clip;
  const isPainted = !isUntouched(document, clip);
  useEffect(() => {
    const element = video.current;
    if (!isPainted || !element) return;
    const scale = Math.min(1, LARGEST / leaves.width);
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
        const shown = documentAt(document, pictureAt(times, at), { width, height });
        const seen = await paintView(frame, shown, scale);
        frame.close();
        if (wanted) draw(canvas.current, seen);
        seen.close();
      }
      busy = false;
    };
    const watch = () =>
      element.requestVideoFrameCallback((_, { mediaTime }) => {
        if (!wanted) return;
        next = mediaTime;
        paint().catch(() => (busy = false));
        watch();
      });
    watch();
    return () => {
      wanted = false;
    };
  }, [video, canvas, isPainted, document, times, leaves.width, width, height]);
  return isPainted;
}

function draw(canvas: HTMLCanvasElement | null, picture: ImageBitmap): void {
  if (!canvas) return;
  Object.assign(canvas, { width: picture.width, height: picture.height });
  canvas.getContext('2d')?.drawImage(picture, 0, 0);
}
