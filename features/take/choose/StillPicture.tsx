import {
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type PointerEvent,
  type ReactNode,
} from 'react';
import { flushSync } from 'react-dom';
import type { Point } from '@/core/geometry/point';
import { fitScale } from '@/core/geometry/rect';
import { useSize } from '../../ui/useSize';
import { PixelView } from './PixelView';

/** How near to a side or corner the pointer grips it, in pixels of the screen. */
const REACH = 9;

/** Where the pointer is on the picture, in its pixels, and how near counts as on. */
export interface Touch {
  at: Point;
  reach: number;
  event: PointerEvent;
}

interface Props {
  picture: ImageBitmap;
  cursor?: (touch: { at: Point; reach: number } | null) => string;
  onDown?: (touch: Touch) => void;
  onMove?: (touch: Touch) => void;
  onUp?: (touch: Touch) => void;
  onDouble?: () => void;
  /** Called with +1 for away from the person. */
  onWheel?: (step: 1 | -1) => void;
  pixelView?: boolean;
  /** What lies over the picture; places are picture pixels times the scale. */
  overlay: (scale: number, at: Point | null) => ReactNode;
}

/** The stilled picture as large as it fits, with what the pointer does on it. */
export function StillPicture(props: Props) {
  const { picture, pixelView = true } = props;
  const [frame, space] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [at, setAt] = useState<Point | null>(null);
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
  const wheelSpace = useRef<HTMLDivElement>(null);
  const { onWheel } = props;
  useEffect(() => {
    const element = wheelSpace.current;
    if (!element || !onWheel) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      onWheel(event.deltaY < 0 ? 1 : -1);
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [onWheel]);
  const latest = useRef(props);
  useLayoutEffect(() => {
    latest.current = props;
  });
  const touch = (event: PointerEvent): Touch => {
    const box = event.currentTarget.getBoundingClientRect();
    const place = { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale };
    return { at: place, reach, event };
  };
  return (
    <div ref={frame} className="grid min-h-0 grow place-items-center overflow-hidden">
      <div
        ref={wheelSpace}
        data-testid="still"
        className="relative touch-none overflow-hidden rounded-[4px] shadow-picture select-none"
        style={{
          width: picture.width * scale,
          height: picture.height * scale,
          cursor: props.cursor?.(at && { at, reach }) ?? 'crosshair',
        }}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          props.onDown?.(touch(event));
        }}
        onPointerMove={(event) => {
          const now = touch(event);
          setAt(now.at);
          props.onMove?.(now);
        }}
        onPointerUp={(event) => {
          if (event.button !== 0) return;
          const now = touch(event);
          // What moved in the same moment may not be drawn yet, and a tap has no move before it.
          flushSync(() => {
            setAt(now.at);
            props.onMove?.(now);
          });
          latest.current.onUp?.(now);
        }}
        onPointerCancel={(event) => props.onUp?.(touch(event))}
        onPointerLeave={() => setAt(null)}
        onDoubleClick={props.onDouble}
      >
        <canvas ref={canvas} className="size-full" />
        {scale > 0 && props.overlay(scale, at)}
        {at && pixelView && (
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
