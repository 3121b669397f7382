import type { Size } from '@/core/geometry/size';
import { useEffect, useRef } from 'react';
import type { Point } from '@/core/geometry/point';

interface Props {
  picture: ImageBitmap;
  /** Where the pointer is, in pixels of the picture. */
  at: Point;
  space: Size;
  scale: number;
}

const PIXELS = 15;
const ENLARGED = 8;
const SIDE = PIXELS * ENLARGED;

/** The pixels around the pointer, enlarged, with the very one in the middle framed. */
export function PixelView({ picture, at, space, scale }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const x = Math.floor(at.x);
  const y = Math.floor(at.y);
  useEffect(() => {
    const surface = canvas.current?.getContext('2d');
    if (!surface) return;
    const half = (PIXELS - 1) / 2;
    surface.imageSmoothingEnabled = false;
    surface.clearRect(0, 0, SIDE, SIDE);
    surface.drawImage(picture, x - half, y - half, PIXELS, PIXELS, 0, 0, SIDE, SIDE);
    const middle = half * ENLARGED;
    surface.strokeStyle = '#FFFFFF';
    surface.strokeRect(middle - 0.5, middle - 0.5, ENLARGED + 1, ENLARGED + 1);
    surface.strokeStyle = '#000000';
    surface.strokeRect(middle - 1.5, middle - 1.5, ENLARGED + 3, ENLARGED + 3);
  }, [picture, x, y]);
  const left =
    at.x * scale + 24 + SIDE > space.width ? at.x * scale - 24 - SIDE : at.x * scale + 24;
  const top =
    at.y * scale + 24 + SIDE + 22 > space.height ? at.y * scale - 46 - SIDE : at.y * scale + 24;
  return (
    <div
      aria-hidden
      className="pointer-events-none absolute overflow-hidden rounded-[6px] border-2 border-ink bg-ink shadow-raised"
      style={{ left, top }}
    >
      <canvas ref={canvas} width={SIDE} height={SIDE} className="block" />
      <span className="block px-1 font-measure text-[11px] leading-5 text-on-ink">
        {x}, {y}
      </span>
    </div>
  );
}
