import { scaleLinear, scaleLog } from 'd3-scale';
import { line, curveMonotoneX } from 'd3-shape';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Likeness } from '@/core/contracts/likeness';
import { formatBytes, formatFixed } from '../ui/format';
import type { ChartState } from './useChart';

const [WIDTH, HEIGHT] = [388, 112];
const edge = { left: 46, right: 36, top: 10, bottom: 19 };

interface Props {
  chart: ChartState;
  quality: number;
  onQuality: (quality: number) => void;
}

/** Ticks whose words do not run into each other; the lower ones stay. */
function apart(ticks: number[], place: (tick: number) => number): number[] {
  const kept: number[] = [];
  for (const tick of ticks) {
    const last = kept.at(-1);
    if (last === undefined || place(last) - place(tick) >= 12) kept.push(tick);
  }
  return kept;
}

/** Size and likeness over quality; the line at the quality in hand is pulled, or moved by keys. */
export function Chart({ chart, quality, onQuality }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const { points } = chart;
  const x = scaleLinear([1, 100], [edge.left, WIDTH - edge.right]);
  const sizes = points.map((p) => p.bytes);
  const bytes = scaleLog(
    [Math.max(1, Math.min(...sizes, 1e12) * 0.8), Math.max(...sizes, 10) * 1.15],
    [HEIGHT - edge.bottom, edge.top],
  );
  const lows = points.map((p) => p.likeness);
  const likeness = scaleLinear([Math.min(0.95, ...lows), 1], [HEIGHT - edge.bottom, edge.top]);
  const drawn = (y: (p: Likeness) => number) =>
    line<Likeness>((p) => x(p.quality), y).curve(curveMonotoneX)([...points]) ?? '';
  const now = points.find((p) => p.quality === quality);
  const pull = (event: PointerEvent) => {
    if (event.buttons !== 1 || !svg.current) return;
    const box = svg.current.getBoundingClientRect();
    const at = x.invert(((event.clientX - box.left) / box.width) * WIDTH);
    onQuality(Math.round(Math.min(100, Math.max(1, at))));
  };
  const key = (event: KeyboardEvent) => {
    const by = {
      ArrowLeft: -1,
      ArrowDown: -1,
      ArrowRight: 1,
      ArrowUp: 1,
      PageUp: 10,
      PageDown: -10,
    };
    const step = by[event.key as keyof typeof by];
    const end = { Home: 1, End: 100 }[event.key];
    if (step === undefined && end === undefined) return;
    event.preventDefault();
    onQuality(end ?? Math.min(100, Math.max(1, quality + (step ?? 0) * (event.shiftKey ? 5 : 1))));
  };
  const said = now
    ? `${formatBytes(now.bytes)}, likeness ${formatFixed(now.likeness, 4)}`
    : 'being worked out';
  const shown = now
    ? `${formatBytes(now.bytes)}, ${formatFixed(now.likeness, 4)}`
    : 'being worked out';
  return (
    <div>
      <svg
        ref={svg}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="slider"
        tabIndex={0}
        aria-label="Quality"
        aria-valuemin={1}
        aria-valuemax={100}
        aria-valuenow={quality}
        aria-valuetext={`Quality ${quality}: ${said}`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          pull(event);
        }}
        onPointerMove={pull}
        onKeyDown={key}
        className="w-full cursor-ew-resize touch-none rounded-[8px] border border-line bg-card font-measure text-[10px]"
      >
        {points.length > 1 &&
          apart(bytes.ticks(3), bytes).map((tick) => (
            <g key={tick}>
              <line
                x1={edge.left}
                x2={WIDTH - edge.right}
                y1={bytes(tick)}
                y2={bytes(tick)}
                className="stroke-line"
              />
              <text x={edge.left - 4} y={bytes(tick) + 3} textAnchor="end" className="fill-soft">
                {formatBytes(tick)}
              </text>
            </g>
          ))}
        {likeness.ticks(3).map((tick) => (
          <text
            key={tick}
            x={WIDTH - edge.right + 4}
            y={likeness(tick) + 3}
            className="fill-petrol"
          >
            {formatFixed(tick, 2)}
          </text>
        ))}
        {[20, 40, 60, 80, 100].map((tick) => (
          <text key={tick} x={x(tick)} y={HEIGHT - 6} textAnchor="middle" className="fill-soft">
            {tick}
          </text>
        ))}
        <path d={drawn((p) => bytes(p.bytes))} fill="none" strokeWidth={2} className="stroke-ink" />
        <path
          d={drawn((p) => likeness(p.likeness))}
          fill="none"
          strokeWidth={2}
          strokeDasharray="5 3"
          className="stroke-petrol"
        />
        {points.map((p) => (
          <g key={p.quality}>
            <circle cx={x(p.quality)} cy={bytes(p.bytes)} r={2.5} className="fill-ink" />
            <circle cx={x(p.quality)} cy={likeness(p.likeness)} r={2.5} className="fill-petrol" />
          </g>
        ))}
        <line
          x1={x(quality)}
          x2={x(quality)}
          y1={edge.top - 6}
          y2={HEIGHT - edge.bottom}
          strokeWidth={2}
          className="stroke-petrol"
        />
      </svg>
      <div className="flex h-6 items-center gap-2 text-[12px] text-soft">
        <span className="shrink-0 whitespace-nowrap" title="Structural similarity at full size">
          <span aria-hidden>▬</span> size <span className="text-petrol">┅ likeness</span>
        </span>
        <span className="min-w-0 grow truncate text-right font-measure text-ink" aria-live="polite">
          Quality {quality}: {shown}
        </span>
        {chart.working && (
          <button type="button" className="text-petrol underline" onClick={chart.stop}>
            Stop
          </button>
        )}
      </div>
    </div>
  );
}
