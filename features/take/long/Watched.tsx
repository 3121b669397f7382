import type { Size } from '@/core/geometry/size';
import { useLong } from './state';

/** Over what a source shows, of that many pixels: the outline of what is watched. */
export function WatchedOutline({ width, height }: Size) {
  const watched = useLong((s) => s.watched);
  if (!watched || width === 0 || height === 0) return null;
  const { x, y, width: w, height: h } = watched.place;
  const percent = (v: number, of: number) => `${(100 * v) / of}%`;
  return (
    <div
      data-testid="watched"
      className="pointer-events-none absolute border-[3px] border-saffron outline-1 outline-ink"
      style={{
        left: percent(x, width),
        top: percent(y, height),
        width: percent(w, width),
        height: percent(h, height),
      }}
    >
      <span className="absolute top-0 left-0 bg-ink px-1.5 font-measure text-[13px] whitespace-nowrap text-on-ink">
        this part scrolls
      </span>
    </div>
  );
}
