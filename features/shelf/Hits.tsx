import type { ShotSummary } from '@/core/contracts/shot';
import type { Rect } from '@/core/geometry/rect';

interface Props {
  shot: Pick<ShotSummary, 'width' | 'height' | 'found'>;
}

/** Room around a word, as a share of its height. */
const ROOM = 0.25;

/** Outlines of found words over a picture that is shown whole in the same box (`object-contain`). */
export function Hits({ shot }: Props) {
  const { found } = shot;
  const { width, height } = found?.seen ?? shot;
  const hits: readonly Rect[] = found?.seen?.boxes ?? found?.hits ?? [];
  if (hits.length === 0) return null;
  return (
    <svg
      aria-hidden
      data-hits={hits.length}
      viewBox={`0 0 ${width} ${height}`}
      preserveAspectRatio="xMidYMid meet"
      className="pointer-events-none absolute inset-0 size-full"
    >
      {hits.map((hit) => {
        const room = hit.height * ROOM;
        return (
          <rect
            key={`${hit.x} ${hit.y} ${hit.width}`}
            x={hit.x - room}
            y={hit.y - room}
            width={hit.width + 2 * room}
            height={hit.height + 2 * room}
            strokeWidth={2}
            vectorEffect="non-scaling-stroke"
            className="fill-transparent stroke-petrol"
          />
        );
      })}
    </svg>
  );
}
