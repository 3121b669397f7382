import { useState } from 'react';
import { STRIP } from '@/core/clip/strip';
import { keptStripUrl } from '../api/clips';

/** Whether what moves by itself is wanted. */
export const mayMove = (): boolean => !matchMedia('(prefers-reduced-motion: reduce)').matches;

/** What is kept of a clip, in small pictures one after the other. @param height of its first, px */
export function MovingPreview({
  id,
  revision,
  seconds,
  height,
}: {
  id: string;
  revision: number;
  seconds: number;
  height: number;
}) {
  const src = keptStripUrl(id, revision, seconds);
  const [aspect, setAspect] = useState<number | null>(null);
  return (
    <span data-testid="moving-preview" className="absolute inset-0 grid place-items-center">
      <img
        src={src}
        alt=""
        hidden
        onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
          setAspect(naturalWidth / STRIP.pictures / naturalHeight)
        }
      />
      {aspect !== null && (
        <span
          className="strip-moves block"
          style={{
            width: `min(100%, ${height * aspect}px)`,
            aspectRatio: aspect,
            backgroundSize: `${100 * STRIP.pictures}% 100%`,
            animationTimingFunction: `steps(${STRIP.pictures}, jump-none)`,
            backgroundImage: `url("${src}")`,
          }}
        />
      )}
    </span>
  );
}
