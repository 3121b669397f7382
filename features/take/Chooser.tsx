import { Check, X } from 'lucide-react';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { fitScale, type Rect } from '@/core/geometry/rect';
import type { Point } from '@/core/geometry/point';
import { gripPoint, grips } from '@/core/geometry/resize';
import {
  dragTo,
  gripAt,
  isArrow,
  nothingChosen,
  nudge,
  press,
  release,
  typeNumber,
  type Selection,
} from '@/core/region/selection';
import { Button } from '../ui/Button';
import { NumberInput } from '../ui/NumberInput';
import { useSize } from '../ui/useSize';
import { PixelView } from './PixelView';
import type { Stilled } from './sources/contract';

interface Props {
  stilled: Stilled;
  onTake: (region: Rect) => void;
  onCancel: () => void;
}

/** How near to a side or corner the pointer grips it, in pixels of the screen. */
const REACH = 9;

/** Choosing a region on the stilled picture: by drag, by keys, by numbers. */
export function Chooser({ stilled, onTake, onCancel }: Props) {
  const { width, height } = stilled.picture;
  const [selection, setSelection] = useState<Selection>(() => nothingChosen({ width, height }));
  const [at, setAt] = useState<Point | null>(null);
  const { region } = selection;
  const take = () => onTake(region ?? { x: 0, y: 0, width, height });
  const surface = useRef<HTMLDivElement>(null);
  useEffect(() => surface.current?.focus(), []);
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.target instanceof HTMLInputElement) {
      if (event.key === 'Enter' && !event.isPropagationStopped()) take();
      return;
    }
    if (isArrow(event.key)) {
      event.preventDefault();
      const { key } = event;
      setSelection((s) => nudge(s, key, event.shiftKey ? 10 : 1, event.altKey));
    } else if (event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) {
      event.preventDefault();
      event.stopPropagation();
      take();
    }
  };
  return (
    <div
      ref={surface}
      tabIndex={-1}
      role="group"
      aria-label="Choose a region on the stilled picture"
      className="flex min-h-0 grow flex-col outline-none"
      onKeyDown={onKeyDown}
    >
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="font-name text-lg">The picture is still</h1>
        <p className="text-soft">
          {region
            ? 'Adjust it by its edges, arrow keys or numbers.'
            : 'Drag over the part you want, or press an arrow key.'}
        </p>
      </div>
      <StillPicture
        stilled={stilled}
        selection={selection}
        setSelection={setSelection}
        at={at}
        setAt={setAt}
      />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        {(['x', 'y', 'width', 'height'] as const).map((field) => (
          <NumberInput
            key={field}
            label={{ x: 'Left', y: 'Top', width: 'Width', height: 'Height' }[field]}
            value={region?.[field] ?? 0}
            onCommit={(value) => setSelection((s) => typeNumber(s, field, value))}
          />
        ))}
        <output
          aria-live="polite"
          aria-label="Size of the region"
          className="font-measure text-[13px] text-soft"
        >
          {region ? `${region.width} × ${region.height} px` : 'no region yet'}
        </output>
        <span className="grow" />
        <Button hint="Esc" icon={<X size={16} strokeWidth={1.75} />} onClick={onCancel}>
          Leave it
        </Button>
        <Button
          look="next"
          hint="Enter"
          icon={<Check size={18} strokeWidth={1.75} />}
          onClick={take}
        >
          {region ? 'Take this region' : 'Take all of it'}
        </Button>
      </div>
    </div>
  );
}

interface PictureProps {
  stilled: Stilled;
  selection: Selection;
  setSelection: (change: (s: Selection) => Selection) => void;
  at: Point | null;
  setAt: (at: Point | null) => void;
}

function StillPicture({ stilled, selection, setSelection, at, setAt }: PictureProps) {
  const { picture } = stilled;
  const [frame, space] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const scale = space.width > 0 ? fitScale(picture, space, 1) : 0;
  const reach = scale > 0 ? REACH / scale : 0;
  useEffect(() => {
    const element = canvas.current;
    const surface = element?.getContext('2d');
    if (!element || !surface || scale === 0) return;
    const dots = scale * window.devicePixelRatio;
    element.width = Math.round(picture.width * dots);
    element.height = Math.round(picture.height * dots);
    surface.imageSmoothingQuality = 'high';
    surface.drawImage(picture, 0, 0, element.width, element.height);
  }, [picture, scale]);
  const place = (event: PointerEvent): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale };
  };
  const grip = at && gripAt(selection, at, reach);
  return (
    <div ref={frame} className="grid min-h-0 grow place-items-center overflow-hidden">
      <div
        data-testid="still"
        className="relative touch-none overflow-hidden rounded-[4px] shadow-picture select-none"
        style={{
          width: picture.width * scale,
          height: picture.height * scale,
          cursor: grip ? `${grip}-resize` : 'crosshair',
        }}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          const start = place(event);
          setSelection((s) => press(s, start, reach));
        }}
        onPointerMove={(event) => {
          const to = place(event);
          setAt(to);
          setSelection((s) => dragTo(s, to, event.shiftKey));
        }}
        onPointerUp={() => setSelection(release)}
        onPointerCancel={() => setSelection(release)}
        onPointerLeave={() => setAt(null)}
      >
        <canvas ref={canvas} className="size-full" />
        <Overlay selection={selection} scale={scale} />
        {at && (
          <PixelView
            picture={picture}
            at={at}
            space={{ width: picture.width * scale, height: picture.height * scale }}
            scale={scale}
          />
        )}
      </div>
    </div>
  );
}

/** Outside the region it is dim; the region has its size at its corner and grips to pull. */
function Overlay({ selection, scale }: { selection: Selection; scale: number }) {
  const { region, frame } = selection;
  const width = frame.width * scale;
  const height = frame.height * scale;
  if (!region)
    return (
      <div aria-hidden className="pointer-events-none absolute inset-0 border-2 border-saffron" />
    );
  const r = {
    x: region.x * scale,
    y: region.y * scale,
    width: region.width * scale,
    height: region.height * scale,
  };
  const hole = `M0 0H${width}V${height}H0Z M${r.x} ${r.y}V${r.y + r.height}H${r.x + r.width}V${r.y}Z`;
  return (
    <>
      <svg
        aria-hidden
        className="pointer-events-none absolute inset-0"
        width={width}
        height={height}
      >
        <path d={hole} fillRule="evenodd" className="dark:fill-black/50 fill-ink/50" />
        <rect {...r} fill="none" className="stroke-ink" strokeWidth={3} />
        <rect {...r} fill="none" className="stroke-saffron" strokeWidth={1.5} />
        {grips.map((grip) => {
          const p = gripPoint(r, grip);
          return (
            <circle
              key={grip}
              cx={p.x}
              cy={p.y}
              r={5}
              className="fill-card stroke-petrol"
              strokeWidth={2}
            />
          );
        })}
      </svg>
      <span
        aria-hidden
        className="pointer-events-none absolute rounded-[5px] bg-ink px-1.5 font-measure text-[13px] text-on-ink"
        style={{ left: Math.min(r.x, width - 110), top: r.y > 26 ? r.y - 25 : r.y + 4 }}
      >
        {region.width} × {region.height}
      </span>
    </>
  );
}
