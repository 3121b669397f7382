import { useRef, useState, type PointerEvent } from 'react';
import { rectFromPoints, type Rect } from '@/core/geometry/rect';
import type { Point } from '@/core/geometry/point';
import type { Size } from '@/core/geometry/size';

/** Something outlined on the picture. */
export interface Outline {
  at: Rect;
  look: 'differs' | 'watched' | 'ignored';
}

interface Props {
  src: string;
  name: string;
  outlines: readonly Outline[];
  /** An area is being drawn: hears it, in pixels of the picture. */
  onDrawn: ((area: Rect) => void) | null;
}

const looks: Record<Outline['look'], string> = {
  differs: '0 0 0 1px #FFFFFF, 0 0 0 3px #D55E00',
  watched: '0 0 0 1px #FFFFFF, 0 0 0 3px #0C6470',
  ignored: '0 0 0 1px #FFFFFF, 0 0 0 3px #000000',
};
/** Less than that is a slip of the hand, pixels. */
const LEAST = 4;

/** A picture of a series, as large as there is room, with what is outlined on it. */
export function Looking({ src, name, outlines, onDrawn }: Props) {
  const [size, setSize] = useState<Size | null>(null);
  const [drawn, setDrawn] = useState<Rect | null>(null);
  const from = useRef<Point | null>(null);
  const pixelAt = (event: PointerEvent<HTMLElement>): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    const scale = (size?.width ?? box.width) / box.width;
    return {
      x: Math.round((event.clientX - box.left) * scale),
      y: Math.round((event.clientY - box.top) * scale),
    };
  };
  const begin = (event: PointerEvent<HTMLElement>) => {
    // Where it is not there yet, nothing can be drawn on it.
    if (!onDrawn || !size || event.button !== 0) return;
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = pixelAt(event);
  };
  const move = (event: PointerEvent<HTMLElement>) => {
    if (from.current) setDrawn(rectFromPoints(from.current, pixelAt(event)));
  };
  const end = (event: PointerEvent<HTMLElement>) => {
    if (!from.current) return;
    const area = rectFromPoints(from.current, pixelAt(event));
    from.current = null;
    setDrawn(null);
    if (area.width >= LEAST && area.height >= LEAST) onDrawn?.(area);
  };
  const place = (r: Rect) =>
    size && {
      left: `${(100 * r.x) / size.width}%`,
      top: `${(100 * r.y) / size.height}%`,
      width: `${(100 * r.width) / size.width}%`,
      height: `${(100 * r.height) / size.height}%`,
    };
  const shown: readonly Outline[] = drawn
    ? [...outlines, { at: drawn, look: 'watched' }]
    : outlines;
  return (
    <div
      className={`relative mx-auto w-fit shadow-picture ${onDrawn ? 'cursor-crosshair touch-none' : ''}`}
      onPointerDown={begin}
      onPointerMove={move}
      onPointerUp={end}
    >
      <img
        src={src}
        alt={name}
        draggable={false}
        onLoad={({ currentTarget: { naturalWidth: width, naturalHeight: height } }) =>
          setSize({ width, height })
        }
        className="block max-h-[calc(100vh-250px)] max-w-full"
      />
      {shown.map(({ at, look }, i) => (
        <span
          key={i}
          aria-hidden
          data-outline={look}
          className="pointer-events-none absolute"
          style={{ ...place(at), boxShadow: looks[look] }}
        />
      ))}
    </div>
  );
}
