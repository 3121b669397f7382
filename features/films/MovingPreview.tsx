import { useState } from 'react';
import { STRIP } from '@/core/clip/strip';
import { stripUrl } from '../api/clips';

/** Whether what moves by itself is wanted. */
export const mayMove = (): boolean => !matchMedia('(prefers-reduced-motion: reduce)').matches;

/** A clip's small pictures one after the other, in the place of its first. @param height of that, px */
export function MovingPreview({
  id,
  revision,
  height,
}: {
  id: string;
  revision: number;
  height: number;
}) {
  const src = stripUrl(id, revision);
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
