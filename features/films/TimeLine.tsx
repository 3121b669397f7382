import { useRef, type PointerEvent } from 'react';
import { clockOf } from '@/core/clip/clock';
import { filmEnds, keptStretches, pictureAt, secondsOf, type Cuts } from '@/core/clip/cuts';
import type { Stretch } from '@/core/values/stretch';
import { stripUrl } from '../api/clips';

interface Props {
  id: string;
  times: readonly number[];
  changes: readonly number[] | null;
  /** Of what hides on the small pictures. */
  marksRevision: number;
  cuts: Cuts;
  picture: number;
  /** What is chosen. */
  chosen: Stretch | null;
  onShow: (picture: number) => void;
  onChoose: (stretch: Stretch | null) => void;
}

/** Fewer pixels are a click, not a stretch. */
const DRAG = 4;

/** The whole film from left to right: small pictures, what is cut away, where something changes. */
export function TimeLine(props: Props) {
  const { id, times, changes, marksRevision, cuts, picture, chosen, onShow, onChoose } = props;
  const line = useRef<HTMLDivElement>(null);
  const begun = useRef<{ x: number; picture: number } | null>(null);
  const end = Math.max(0.001, filmEnds(times));
  const place = (of: number) => `${(100 * (times[of] ?? end)) / end}%`;
  const placed = (stretch: Stretch) => {
    const { from, to } = secondsOf(stretch, times);
    return { left: place(stretch.from), width: `${(100 * (to - from)) / end}%` };
  };
  const pictureUnder = (event: PointerEvent): number => {
    const { left = 0, width = 1 } = line.current?.getBoundingClientRect() ?? {};
    return pictureAt(times, (end * (event.clientX - left)) / width);
  };
  const move = (event: PointerEvent) => {
    const start = begun.current;
    if (!start) return;
    const under = pictureUnder(event);
    onShow(under);
    if (Math.abs(event.clientX - start.x) < DRAG) return;
    const [from, to] = under < start.picture ? [under, start.picture] : [start.picture, under];
    onChoose({ from, to: to + 1 });
  };
  const kept = keptStretches(cuts, times.length);
  const gone = keptStretches({ away: kept }, times.length);
  return (
    <div className="px-4 pb-3">
      <div
        ref={line}
        role="slider"
        data-view-moves
        tabIndex={0}
        aria-label="Time line"
        aria-valuemin={0}
        aria-valuemax={times.length - 1}
        aria-valuenow={picture}
        aria-valuetext={`${clockOf(times[picture] ?? 0)} of ${clockOf(end)}`}
        className="relative h-[62px] touch-none overflow-hidden rounded-[6px] border border-edge bg-card"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const under = pictureUnder(event);
          begun.current = { x: event.clientX, picture: under };
          onChoose(null);
          onShow(under);
        }}
        onPointerMove={move}
        onPointerUp={() => (begun.current = null)}
        onPointerCancel={() => (begun.current = null)}
      >
        {changes && (
          <img
            src={stripUrl(id, marksRevision)}
            alt=""
            draggable={false}
            className="size-full object-fill"
          />
        )}
        {gone.map((stretch) => (
          <span
            key={stretch.from}
            data-testid="cut-away"
            className="absolute inset-y-0 border-x-4 border-petrol bg-paper/80"
            style={placed(stretch)}
          />
        ))}
        {(cuts.speeds ?? []).map((sped) => (
          <span
            key={sped.from}
            data-testid="sped"
            className="absolute inset-y-0 border-x-2 border-petrol font-measure text-[12px]"
            style={placed(sped)}
          >
            <span className="absolute bottom-0.5 left-0.5 rounded-[3px] bg-petrol px-1 text-card">
              {sped.speed}×
            </span>
          </span>
        ))}
        {chosen && (
          <span
            data-testid="chosen-stretch"
            className="absolute inset-y-0 border-2 border-saffron bg-saffron/30 outline-1 outline-ink"
            style={placed(chosen)}
          />
        )}
        <span
          aria-hidden
          className="absolute inset-y-0 w-[3px] -translate-x-1/2 border-x border-card bg-ink"
          style={{ left: place(picture) }}
        />
      </div>
      <div aria-hidden className="relative h-3">
        {changes?.map((at) => (
          <span
            key={at}
            className="absolute top-1 h-2 w-[2px] bg-soft"
            style={{ left: place(at) }}
          />
        ))}
      </div>
    </div>
  );
}
