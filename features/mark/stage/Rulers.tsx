import type { Size } from '@/core/geometry/size';
import { useEffect, useRef } from 'react';
import type { Rect } from '@/core/geometry/rect';
import type { Camera } from '../session/camera';
import { themeColour } from './theme';

interface Props {
  camera: Camera;
  size: Size;
  /** Counted from the view's corner, as the picture that leaves is. */
  view: Rect;
  hidden: boolean;
}

const THICK = 20;
const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000];
/** Numbers stand at least this far apart on the screen. */
const APART = 70;

/** Pixel rulers at the top and the left. */
export function Rulers({ camera, size, view, hidden }: Props) {
  if (hidden) {
    return (
      <>
        <div />
        <div />
        <div />
      </>
    );
  }
  return (
    <>
      <div className="border-r border-b border-line bg-paper" />
      <Ruler vertical={false} length={size.width} from={camera.x - view.x} scale={camera.scale} />
      <Ruler vertical length={size.height} from={camera.y - view.y} scale={camera.scale} />
    </>
  );
}

interface RulerProps {
  vertical: boolean;
  length: number;
  /** Pixel of the picture at the ruler's beginning. */
  from: number;
  scale: number;
}

function Ruler({ vertical, length, from, scale }: RulerProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    const surface = element?.getContext('2d');
    if (!element || !surface || length === 0) return;
    const dots = window.devicePixelRatio;
    element.width = (vertical ? THICK : length) * dots;
    element.height = (vertical ? length : THICK) * dots;
    surface.scale(dots, dots);
    drawRuler(surface, { vertical, length, from, scale });
  }, [vertical, length, from, scale]);
  return (
    <div className={vertical ? 'border-r border-line bg-paper' : 'border-b border-line bg-paper'}>
      <canvas
        ref={canvas}
        aria-hidden
        className="absolute"
        style={vertical ? { width: THICK, height: length } : { width: length, height: THICK }}
      />
    </div>
  );
}

function drawRuler(surface: CanvasRenderingContext2D, ruler: RulerProps): void {
  const { vertical, length, from, scale } = ruler;
  const step = STEPS.find((s) => s * scale >= APART) ?? 20_000;
  surface.strokeStyle = themeColour('soft');
  surface.fillStyle = themeColour('soft');
  surface.font = '10px "IBM Plex Mono"';
  surface.textBaseline = 'top';
  surface.beginPath();
  const small = step / 5;
  for (
    let value = Math.ceil(from / small) * small;
    (value - from) * scale < length;
    value += small
  ) {
    const at = Math.round((value - from) * scale) + 0.5;
    const whole = Math.abs(value / step - Math.round(value / step)) < 1e-6;
    const start = whole ? 4 : 15;
    if (vertical) {
      surface.moveTo(start, at);
      surface.lineTo(THICK, at);
    } else {
      surface.moveTo(at, start);
      surface.lineTo(at, THICK);
    }
    if (!whole) continue;
    surface.save();
    surface.translate(vertical ? 3 : at + 3, vertical ? at + 3 : 2);
    if (vertical) {
      surface.rotate(Math.PI / 2);
      surface.translate(0, -10);
    }
    surface.fillText(String(Math.round(value)), 0, 0);
    surface.restore();
  }
  surface.stroke();
}
