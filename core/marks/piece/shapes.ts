import type { PointerShape } from '../names';
import type { Point } from '../../geometry/point';
import type { Surface } from '../../drawing/surface';

export const pointerShapeLabels: Record<PointerShape, string> = {
  arrow: 'Arrow',
  hand: 'Hand',
  text: 'Text bar',
  cross: 'Cross',
};

/** Side of the square each shape is drawn in. */
export const SHAPE_SIDE = 24;

/** The point of each shape that points. */
export const shapeHotSpots: Record<PointerShape, Point> = {
  arrow: { x: 3, y: 2 },
  hand: { x: 9, y: 2 },
  text: { x: 12, y: 12 },
  cross: { x: 12, y: 12 },
};

type Outline = readonly (readonly [number, number])[];

const arrow: Outline = [
  [3, 2],
  [3, 19],
  [7.2, 15.4],
  [9.9, 21.6],
  [12.9, 20.3],
  [10.2, 14.2],
  [15.8, 14],
];

const hand: Outline = [
  [7.6, 3],
  [9, 2],
  [10.4, 3],
  [10.4, 9],
  [13, 8.7],
  [13.4, 9.6],
  [16, 9.4],
  [16.5, 10.4],
  [18.7, 10.4],
  [19.4, 11.6],
  [19.4, 16.5],
  [17.6, 19.4],
  [17.6, 22],
  [9.4, 22],
  [9.4, 20.4],
  [4, 14.4],
  [4.2, 12.6],
  [5.8, 12.4],
  [7.6, 14],
];

const bar: Outline = [
  [8, 3],
  [11.2, 3],
  [12, 3.6],
  [12.8, 3],
  [16, 3],
  [16, 4.6],
  [12.9, 4.6],
  [12.9, 19.4],
  [16, 19.4],
  [16, 21],
  [12.8, 21],
  [12, 20.4],
  [11.2, 21],
  [8, 21],
  [8, 19.4],
  [11.1, 19.4],
  [11.1, 4.6],
  [8, 4.6],
];

const cross: Outline = [
  [11.2, 3],
  [12.8, 3],
  [12.8, 11.2],
  [21, 11.2],
  [21, 12.8],
  [12.8, 12.8],
  [12.8, 21],
  [11.2, 21],
  [11.2, 12.8],
  [3, 12.8],
  [3, 11.2],
  [11.2, 11.2],
];

const outlines: Record<PointerShape, Outline> = { arrow, hand, text: bar, cross };

/** Paints a shape with its hot spot at `at`, dark with a light rim so that it shows on any ground. */
export function paintPointer(
  surface: Surface,
  shape: PointerShape,
  at: Point,
  scale: number,
): void {
  const hot = shapeHotSpots[shape];
  const trace = () => {
    surface.beginPath();
    outlines[shape].forEach(([x, y], i) => {
      const px = at.x + (x - hot.x) * scale;
      const py = at.y + (y - hot.y) * scale;
      if (i === 0) surface.moveTo(px, py);
      else surface.lineTo(px, py);
    });
    surface.closePath();
  };
  trace();
  surface.lineJoin = 'round';
  surface.lineWidth = 2.4 * scale;
  surface.strokeStyle = '#FFFFFF';
  surface.stroke();
  trace();
  surface.fillStyle = '#101418';
  surface.fill();
}

/** The shapes that themes of pointers have under these names. */
const names: Record<string, PointerShape> = {
  left_ptr: 'arrow',
  default: 'arrow',
  arrow: 'arrow',
  top_left_arrow: 'arrow',
  hand1: 'hand',
  hand2: 'hand',
  hand: 'hand',
  pointer: 'hand',
  pointing_hand: 'hand',
  xterm: 'text',
  text: 'text',
  ibeam: 'text',
  crosshair: 'cross',
  cross: 'cross',
  tcross: 'cross',
};

export const shapeNamed = (name: string): PointerShape | undefined => names[name];
