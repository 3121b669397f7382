import {
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
  type PointerEvent,
  type ReactNode,
  type RefObject,
} from 'react';
import { flushSync } from 'react-dom';
import type { Point } from '@/core/geometry/point';
import { fitScale, intersection, type Rect } from '@/core/geometry/rect';
import { isLong } from '@/core/geometry/size';
import { useKey } from '../../keys/useKey';
import { classes } from '../../ui/classes';
import { useSize } from '../../ui/useSize';
import { PixelView } from './PixelView';

/** How near to a side or corner the pointer grips it, in pixels of the screen. */
const REACH = 9;

/** A canvas is no higher, px; what is longer is drawn coarser. */
const HIGHEST = 16_000;
/** A drag so near to an edge scrolls, by so much, px. */
const EDGE = 28;

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
  /** Called with +1 for away from the person; what is long is scrolled by it instead. */
  onWheel?: (step: 1 | -1) => void;
  pixelView?: boolean;
  /** What is chosen; of a long picture it is brought into sight. */
  follow?: Rect | null;
  /** What lies over the picture; places are picture pixels times the scale. */
  overlay: (scale: number, at: Point | null) => ReactNode;
}

/** The stilled picture as large as it fits, with what the pointer does on it. */
export function StillPicture(props: Props) {
  const { picture, pixelView = true } = props;
  const [frame, space] = useSize<HTMLDivElement>();
  const canvas = useRef<HTMLCanvasElement>(null);
  const long = isLong(picture);
  const [top, setTop] = useState(0);
  const [at, setAt] = useState<Point | null>(null);
  const across = Math.min(1, space.width / picture.width);
  const scale = space.width === 0 ? 0 : long ? across : fitScale(picture, space, 1);
  const reach = scale > 0 ? REACH / scale : 0;
  useEffect(() => {
    const element = canvas.current;
    const surface = element?.getContext('2d');
    if (!element || !surface || scale === 0) return;
    const dots = Math.min(scale * window.devicePixelRatio, HIGHEST / picture.height);
    element.width = Math.round(picture.width * dots);
    element.height = Math.round(picture.height * dots);
    surface.imageSmoothingQuality = 'high';
    surface.drawImage(picture, 0, 0, element.width, element.height);
  }, [picture, scale]);
  const wheelSpace = useRef<HTMLDivElement>(null);
  const { onWheel } = props;
  useEffect(() => {
    const element = wheelSpace.current;
    if (!element || !onWheel || long) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      onWheel(event.deltaY < 0 ? 1 : -1);
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [onWheel, long]);
  useScrolled({ frame, long, scale, follow: props.follow });
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
    <div
      ref={frame}
      onScroll={(event) => setTop(event.currentTarget.scrollTop)}
      className={classes(
        'grid min-h-0 grow',
        long ? 'justify-items-center overflow-y-auto' : 'place-items-center overflow-hidden',
      )}
    >
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
          if (long && event.buttons !== 0) scrollAtEdge(frame.current, event.clientY);
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
            space={{
              width: picture.width * scale,
              height: long ? top + space.height : picture.height * scale,
            }}
            scale={scale}
          />
        )}
      </div>
    </div>
  );
}

function scrollAtEdge(frame: HTMLElement | null, y: number): void {
  const box = frame?.getBoundingClientRect();
  if (!frame || !box) return;
  if (y > box.bottom - EDGE) frame.scrollBy(0, EDGE);
  if (y < box.top + EDGE) frame.scrollBy(0, -EDGE);
}

interface Scrolled {
  frame: RefObject<HTMLElement | null>;
  long: boolean;
  scale: number;
  follow?: Rect | null;
}

/** A long picture goes on by the keys, and to what is chosen out of sight. */
function useScrolled({ frame, long, scale, follow }: Scrolled): void {
  const enabled = long;
  const page = (by: number) => frame.current?.scrollBy(0, by * frame.current.clientHeight * 0.9);
  useKey('pagedown', () => page(1), { enabled });
  useKey('pageup', () => page(-1), { enabled });
  useKey('home', () => frame.current?.scrollTo(0, 0), { enabled });
  useKey('end', () => frame.current?.scrollTo(0, frame.current.scrollHeight), { enabled });
  useEffect(() => {
    const element = frame.current;
    if (!element || !long || !follow || scale === 0) return;
    const { scrollTop, clientHeight, clientWidth } = element;
    const seen = { x: 0, y: scrollTop, width: clientWidth, height: clientHeight };
    const place = { ...follow, y: follow.y * scale, height: follow.height * scale };
    if (intersection({ ...place, x: 0, width: clientWidth }, seen)) return;
    element.scrollTo(0, place.y - (clientHeight - place.height) / 2);
  }, [frame, long, scale, follow]);
}
