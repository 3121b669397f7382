import type { Size } from '@/core/geometry/size';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import type { Point } from '@/core/geometry/point';
import { fitScale, rectFromPoints, type Rect } from '@/core/geometry/rect';
import { gripPoint, grips, pullGrip, type Grip } from '@/core/geometry/resize';
import { gripAt } from '@/core/region/selection';
import { cropInside } from '@/core/document/view';
import { snappedTo } from '@/core/document/bring';
import { Button } from '../../ui/Button';
import { NumberInput } from '../../ui/NumberInput';
import { bringPart } from '../actions/bringPart';
import { setView } from '../fit/crop';
import { knownParts } from '../recognise/parts';
import { useLive } from '../session/live';
import { update } from '../session/session';
import { useDocument } from '../session/document';

const MOST = { width: 202, height: 150 };
const REACH = 9;

/** A map of the whole frame with the view on it, dragged to show more or less of it. */
export function KeptAround() {
  const picture = useDocument((s) => s.picture);
  const frame = useDocument((s) => s.frame);
  const view = useDocument((s) => s.history.document.view.crop);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [pulled, setPulled] = useState<Rect | null>(null);
  const drag = useRef<{ grip: Grip | 'move'; from: Point; start: Rect } | null>(null);
  const scale = fitScale(picture, MOST);
  const size = { width: picture.width * scale, height: picture.height * scale };
  useEffect(() => {
    const surface = canvas.current?.getContext('2d');
    if (!surface) return;
    const { width, height } = surface.canvas;
    surface.drawImage(picture, 0, 0, width, height);
    // Smooth scaling of a large frame takes a while: the picture itself comes first.
    const timer = setTimeout(() => {
      surface.imageSmoothingQuality = 'high';
      surface.drawImage(picture, 0, 0, width, height);
    }, 400);
    return () => clearTimeout(timer);
  }, [picture]);
  const shown = pulled ?? view;
  const place = (event: PointerEvent): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale };
  };
  const bringing = useLive((s) => s.bringing);
  const begun = useRef<Point | null>(null);
  const draw = (event: PointerEvent) => {
    if (!begun.current) return;
    const drawn = rectFromPoints(begun.current, place(event));
    update({ bringing: { part: cropInside(drawn, picture) } });
  };
  /** Edges of what is seen there draw those of the part to them. */
  const bring = () => {
    const part = bringing?.part;
    if (begun.current && part && part.width > 2 && part.height > 2) {
      void bringPart(cropInside(snappedTo(part, knownParts(), REACH / scale), picture));
    }
    begun.current = null;
  };
  const down = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const from = place(event);
    if (bringing) {
      begun.current = from;
      return;
    }
    const grip = gripAt({ frame: picture, region: view, drag: null }, from, REACH / scale);
    drag.current = { grip: grip ?? 'move', from, start: view };
  };
  const move = (event: PointerEvent) => {
    const held = drag.current;
    if (!held) return;
    const at = place(event);
    const next =
      held.grip === 'move'
        ? moved(held.start, { x: at.x - held.from.x, y: at.y - held.from.y }, picture)
        : pullGrip(held.start, held.grip, at);
    setPulled(cropInside(next, picture));
  };
  const up = () => {
    if (drag.current && pulled) setView(pulled, 'Change the view');
    drag.current = null;
    setPulled(null);
  };
  const r = {
    x: shown.x * scale,
    y: shown.y * scale,
    width: shown.width * scale,
    height: shown.height * scale,
  };
  const dots = window.devicePixelRatio;
  return (
    <section aria-label="Kept around it">
      <h2 className="mb-2 font-name text-base">Kept around it</h2>
      <div className="rounded-[8px] border border-line bg-card p-2">
        <div
          className="relative mx-auto cursor-move touch-none"
          data-testid="map"
          style={size}
          onPointerDown={down}
          onPointerMove={bringing ? draw : move}
          onPointerUp={bringing ? bring : up}
          onPointerCancel={bringing ? () => (begun.current = null) : up}
        >
          <canvas
            ref={canvas}
            aria-hidden
            width={Math.round(size.width * dots)}
            height={Math.round(size.height * dots)}
            className="size-full rounded-[3px]"
          />
          <svg
            aria-hidden
            className="pointer-events-none absolute inset-0 overflow-visible"
            width={size.width}
            height={size.height}
          >
            <path
              fillRule="evenodd"
              className="dark:fill-black/55 fill-ink/45"
              d={`M0 0H${size.width}V${size.height}H0Z M${r.x} ${r.y}h${r.width}v${r.height}h${-r.width}Z`}
            />
            {bringing?.part && (
              <rect
                x={bringing.part.x * scale}
                y={bringing.part.y * scale}
                width={bringing.part.width * scale}
                height={bringing.part.height * scale}
                className="fill-petrol/30 stroke-petrol"
                strokeWidth={2}
              />
            )}
            <rect {...r} fill="none" className="stroke-ink" strokeWidth={3.5} />
            <rect {...r} fill="none" className="stroke-saffron" strokeWidth={2} />
            {grips.map((grip) => {
              const p = gripPoint(r, grip);
              return (
                <rect
                  key={grip}
                  x={p.x - 3}
                  y={p.y - 3}
                  width={6}
                  height={6}
                  className="fill-card stroke-ink"
                />
              );
            })}
          </svg>
        </div>
        {bringing && <BringPart picture={picture} />}
        <p className="mt-2 text-[13px] text-soft">
          The whole {frame.width} × {frame.height} frame is kept. Drag the edges to bring more back,
          or use Crop to type numbers.
        </p>
      </div>
    </section>
  );
}

/** The part by numbers, for those who draw none. */
function BringPart({ picture }: { picture: Size }) {
  const [part, setPart] = useState<Rect>({
    x: 0,
    y: 0,
    width: picture.width,
    height: Math.min(100, picture.height),
  });
  const field = (name: keyof Rect, label: string) => (
    <NumberInput
      key={name}
      label={label}
      value={part[name]}
      min={0}
      onCommit={(value) => setPart((p) => ({ ...p, [name]: Math.round(value) }))}
    />
  );
  return (
    <form
      aria-label="Bring a part here"
      className="mt-2 flex flex-col gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        void bringPart(part);
      }}
    >
      <p className="text-[13px] text-soft">Draw it on the map, or type where it is:</p>
      <div className="grid grid-cols-2 gap-1.5">
        {field('x', 'From x')}
        {field('y', 'From y')}
        {field('width', 'So wide')}
        {field('height', 'So high')}
      </div>
      <Button type="submit">Bring it</Button>
    </form>
  );
}

function moved(start: Rect, by: Point, frame: Size): Rect {
  return {
    ...start,
    x: Math.min(Math.max(0, start.x + by.x), frame.width - start.width),
    y: Math.min(Math.max(0, start.y + by.y), frame.height - start.height),
  };
}
