import { useEffect, useRef } from 'react';
import type { Rect } from '@/core/geometry/rect';
import type { Shot } from '@/core/contracts/shot';
import { api } from '../api/client';
import { pictureQuery, type PictureWish } from '../api/picture';
import { formatFixed } from '../ui/format';
import { useAnswer } from '../api/useAnswer';

const ENLARGED = 3;
const PAUSE = 700;

interface Props {
  shot: Shot;
  wish: PictureWish;
  url: string | null;
  /** The picture arrives at this part of its own width; null for all of it. */
  scaled: number | null;
}

/** The place where the result is least like the original, both enlarged side by side. */
export function WorstSpot({ shot, wish, url, scaled }: Props) {
  const {
    answer: found,
    problem,
    asking,
  } = useAnswer(
    (signal) => api.likeness(shot.id, wish, signal),
    `${shot.id} ${shot.revision} ${pictureQuery(wish)}`,
    { after: PAUSE },
  );
  if (asking) {
    return (
      <p role="status" className="shrink-0 text-[13px] text-soft">
        Looking for the worst spot …
      </p>
    );
  }
  if (!found) {
    return (
      <p className="max-w-[260px] shrink-0 text-[13px] text-soft">
        The worst spot could not be worked out. {problem}
      </p>
    );
  }
  const { worst } = found;
  if (!worst) {
    return (
      <p className="max-w-[260px] shrink-0 text-[13px] text-soft">
        {scaled === null
          ? 'Every pixel arrives as it is; there is no worst spot.'
          : `Sized to ${Math.round(scaled * 100)} %, it is no longer the same pixels. The format changes nothing beyond that.`}
      </p>
    );
  }
  const { quality: _, maxBytes: __, ...rest } = wish;
  const before = `/api/shots/${shot.id}/picture?${pictureQuery({ ...rest, format: 'png', options: {} })}`;
  return (
    <section aria-label="Worst spot" className="flex shrink-0 items-center gap-4">
      <div>
        <h2 className="font-name text-base">The worst spot</h2>
        <p className="font-measure text-[13px] text-soft">
          {scaled !== null && `at ${Math.round(scaled * 100)} %: `}
          likeness {formatFixed(worst.likeness, 2)} here,
          <br />
          {formatFixed(found.likeness, 4)} on the whole
        </p>
      </div>
      <Spot src={before} at={worst.at} label="Before" />
      {url && <Spot src={url} at={worst.at} label="As it will arrive" />}
    </section>
  );
}

function Spot({ src, at, label }: { src: string; at: Rect; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const surface = canvas.current?.getContext('2d');
    if (!surface) return;
    const image = new Image();
    image.onload = () => {
      surface.imageSmoothingEnabled = false;
      surface.drawImage(
        image,
        at.x,
        at.y,
        at.width,
        at.height,
        0,
        0,
        at.width * ENLARGED,
        at.height * ENLARGED,
      );
    };
    image.src = src;
  }, [src, at]);
  return (
    <figure>
      <canvas
        ref={canvas}
        width={at.width * ENLARGED}
        height={at.height * ENLARGED}
        role="img"
        aria-label={`The worst spot, ${label.toLowerCase()}`}
        className="h-[100px] w-auto rounded-[4px] border border-line"
      />
      <figcaption className="text-[13px] text-soft">{label}</figcaption>
    </figure>
  );
}
