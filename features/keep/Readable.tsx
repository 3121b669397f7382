import { useEffect, useRef } from 'react';
import type { SmallestWords } from '@/core/contracts/likeness';
import type { Shot } from '@/core/contracts/shot';
import { api } from '../api/client';
import { useSettings } from '../settings/settingsStore';
import { Button } from '../ui/Button';
import { formatFixed } from '../ui/format';
import { useAnswer } from '../api/useAnswer';

interface Props {
  shot: Shot;
  /** Width the picture will have, and its own. */
  width: number;
  own: number;
  onWidth: (width: number) => void;
}

/** Says when the smallest words become too small to be read, and the width that would do. */
export function Readable({ shot, width, own, onWidth }: Props) {
  const least = useSettings((s) => s.settings.readableFrom);
  const words = useSmallestWords(shot);
  if (!words) return null;
  const scale = width / own;
  const high = words.xHeight * scale;
  const enough = Math.min(own, Math.ceil((own * least) / words.xHeight));
  if (high >= least || scale >= 1) return null;
  return (
    <div role="status" className="mt-2 rounded-[8px] border border-brick bg-card p-2 text-[13px]">
      <p>
        The smallest words will hardly be readable: a small x is {formatFixed(high, 1)} px high.{' '}
        {enough} px wide would do.
      </p>
      <Button className="mt-1" onClick={() => onWidth(enough)}>
        Make it {enough} px wide
      </Button>
    </div>
  );
}

export const useSmallestWords = (shot: Shot): SmallestWords =>
  useAnswer(() => api.smallestWords(shot.id), `${shot.id} ${shot.revision}`).answer;

interface SpotProps {
  shot: Shot;
  url: string | null;
  /** Width the picture arrives in, null until that is known, and its own. */
  width: number | null;
  own: number;
}

const MOST = { width: 220, height: 34 };

/** The smallest words as they arrive, enlarged. */
export function SmallestSpot({ shot, url, width, own }: SpotProps) {
  const words = useSmallestWords(shot);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const surface = canvas.current?.getContext('2d');
    if (!surface || !words || !url || width === null) return;
    const image = new Image();
    image.onload = () => {
      const scale = width / own;
      const cut = {
        x: words.box.x * scale,
        y: (words.box.y - 3) * scale,
        width: Math.min(words.box.width, MOST.width) * scale,
        height: Math.min(words.box.height + 6, MOST.height) * scale,
      };
      surface.canvas.width = Math.max(1, Math.round(cut.width * 2));
      surface.canvas.height = Math.max(1, Math.round(cut.height * 2));
      surface.imageSmoothingEnabled = false;
      surface.drawImage(
        image,
        cut.x,
        cut.y,
        cut.width,
        cut.height,
        0,
        0,
        surface.canvas.width,
        surface.canvas.height,
      );
    };
    image.src = url;
  }, [words, url, width, own]);
  if (!words) return null;
  if (!url || width === null) {
    return (
      <p role="status" className="text-[13px] text-soft">
        Looking at the smallest words …
      </p>
    );
  }
  const high = (words.xHeight * width) / own;
  return (
    <figure>
      <canvas
        ref={canvas}
        role="img"
        aria-label="The smallest words, as they will arrive"
        className="max-h-[72px] max-w-[300px] rounded-[4px] border border-line"
      />
      <figcaption className="text-[13px] text-soft">
        The smallest words: a small x arrives {formatFixed(high, 1)} px high
      </figcaption>
    </figure>
  );
}
