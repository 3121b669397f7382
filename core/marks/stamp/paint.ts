import { readableOn } from '../../colour/colour';
import { inflate, type Rect } from '../../geometry/rect';
import { ovalPath } from '../../drawing/paths';
import type { Surface } from '../../drawing/surface';
import { drawings, type Drawing } from './drawings';
import type { StampName } from './names';

/** Every stamp but the key cap, which grows with its words. */
export type DrawingName = Exclude<StampName, 'key'>;

/** A square of the frame, and a colour as #RRGGBB. */
export interface Placed extends Rect {
  colour: string;
}

/** Drawings lie on a square of so many steps. */
const GRID = 24;

/** Paints a drawing where it is wanted, in its colour. */
export function paintDrawing(surface: Surface, name: DrawingName, mark: Placed): void {
  const drawing: Drawing = drawings[name];
  const { turned } = drawing;
  const quarters = turned?.quarters ?? 0;
  const shown = turned && turned.of !== 'key' ? drawings[turned.of] : drawing;
  const scale = mark.width / GRID;
  const place = (x: number, y: number): [number, number] => {
    let [u, v] = [x - GRID / 2, y - GRID / 2];
    for (let i = 0; i < quarters; i += 1) [u, v] = [-v, u];
    return [mark.x + (u + GRID / 2) * scale, mark.y + (v + GRID / 2) * scale];
  };
  const trace = (points: readonly number[]) => {
    for (let i = 0; i + 1 < points.length; i += 2) {
      const at = place(points[i] ?? 0, points[i + 1] ?? 0);
      if (i === 0) surface.moveTo(...at);
      else surface.lineTo(...at);
    }
  };
  paintGround(surface, mark, shown, trace);
  const on = shown.ground ? readableOn(mark.colour) : mark.colour;
  surface.strokeStyle = on;
  surface.fillStyle = on;
  surface.lineWidth = (shown.ground ? 2.4 : 2.6) * scale;
  surface.lineCap = 'round';
  surface.lineJoin = 'round';
  for (const points of shown.lines ?? []) {
    surface.beginPath();
    trace(points);
    surface.stroke();
  }
  for (const [x, y, width, height] of shown.rounds ?? []) {
    const [left, top] = place(x, y);
    surface.beginPath();
    ovalPath(surface, { x: left, y: top, width: width * scale, height: height * scale });
    surface.stroke();
  }
  for (const [x, y, r] of shown.dots ?? []) {
    const [cx, cy] = place(x, y);
    surface.beginPath();
    const side = 2 * r * scale;
    ovalPath(surface, { x: cx - side / 2, y: cy - side / 2, width: side, height: side });
    surface.fill();
  }
}

function paintGround(
  surface: Surface,
  mark: Placed,
  { ground, shape }: Drawing,
  trace: (points: readonly number[]) => void,
): void {
  if (!ground) return;
  surface.fillStyle = mark.colour;
  surface.strokeStyle = mark.colour;
  surface.lineJoin = 'round';
  surface.lineWidth = (1.4 * mark.width) / GRID;
  surface.beginPath();
  if (ground === 'disc') {
    ovalPath(surface, inflate(mark, -mark.width / GRID));
  } else if (ground === 'triangle') {
    trace([12, 2.4, 22.4, 20.8, 1.6, 20.8]);
    surface.closePath();
  } else {
    for (const points of shape ?? []) {
      trace(points);
      surface.closePath();
    }
  }
  surface.fill();
  if (ground !== 'disc') surface.stroke();
}
