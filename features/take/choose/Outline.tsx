import type { Size } from '@/core/geometry/size';
import type { ReactNode } from 'react';
import type { Rect } from '@/core/geometry/rect';

interface Props {
  /** What stands out, in picture pixels; none at all when absent. */
  region: Rect | null;
  /** The outline as an SVG path in screen pixels, when it is no rectangle. */
  path?: string;
  frame: Size;
  scale: number;
  label?: string;
  children?: ReactNode;
}

export const scaled = (r: Rect, scale: number): Rect => ({
  x: r.x * scale,
  y: r.y * scale,
  width: r.width * scale,
  height: r.height * scale,
});

export const boxPath = (r: Rect): string =>
  `M${r.x} ${r.y}V${r.y + r.height}H${r.x + r.width}V${r.y}Z`;

/** Outside of what is chosen it is dim; what is chosen has an outline, its words at its corner. */
export function Outline({ region, path, frame, scale, label, children }: Props) {
  const width = frame.width * scale;
  const height = frame.height * scale;
  if (!region) {
    return (
      <>
        <div aria-hidden className="pointer-events-none absolute inset-0 border-2 border-saffron" />
        <svg aria-hidden className="pointer-events-none absolute inset-0" {...{ width, height }}>
          {children}
        </svg>
      </>
    );
  }
  const r = scaled(region, scale);
  const outline = path ?? boxPath(r);
  return (
    <>
      <svg aria-hidden className="pointer-events-none absolute inset-0" {...{ width, height }}>
        <path
          d={`M0 0H${width}V${height}H0Z ${outline}`}
          fillRule="evenodd"
          className="dark:fill-black/50 fill-ink/50"
        />
        <path d={outline} fill="none" className="stroke-ink" strokeWidth={3} />
        <path d={outline} fill="none" className="stroke-saffron" strokeWidth={1.5} />
        {children}
      </svg>
      {label && (
        <span
          aria-hidden
          className="pointer-events-none absolute max-w-[360px] truncate rounded-[5px] bg-ink px-1.5 font-measure text-[13px] text-on-ink"
          style={{
            left: Math.max(0, Math.min(r.x, width - 8.2 * label.length - 14)),
            top: r.y > 26 ? r.y - 25 : r.y + 4,
          }}
        >
          {label}
        </span>
      )}
    </>
  );
}

export function Grip({ at }: { at: { x: number; y: number } }) {
  return <circle cx={at.x} cy={at.y} r={5} className="fill-card stroke-petrol" strokeWidth={2} />;
}
