import { gripPoint, grips, isGrip, pullGrip } from '../../geometry/resize';
import { inflate, rectFromPoints, type Rect } from '../../geometry/rect';
import { mappedRect, type Mapping } from '../../geometry/mapping';
import type { Point } from '../../geometry/point';
import type { Surface } from '../../drawing/surface';
import type { Handle, NumberField, StrokePoint } from '../contract';
import type { Style } from '../style';

export interface RectMark extends Rect {
  colour: string;
  outline: number;
  fill: string | null;
  fillOpacity: number;
  dashed: boolean;
}

export function rectFromPath(path: readonly StrokePoint[]): Rect {
  const first = path[0] ?? { x: 0, y: 0 };
  return rectFromPoints(first, path.at(-1) ?? first);
}

export const rectStyle = (style: Style) => ({
  colour: style.colour,
  outline: style.outline,
  fill: style.fill,
  fillOpacity: style.fillOpacity,
  dashed: style.dashed,
});

export const rectTooSmall = (mark: Rect): boolean => mark.width < 3 && mark.height < 3;

export const rectBounds = (mark: RectMark): Rect => inflate(mark, mark.outline / 2 + 1);

export const rectHandles = (mark: Rect): Handle[] =>
  grips.map((grip) => ({ id: grip, at: gripPoint(mark, grip), role: 'resize' }));

export function pullRect<M extends Rect>(mark: M, handle: string, to: Point, keep: boolean): M {
  return isGrip(handle) ? { ...mark, ...pullGrip(mark, handle, to, keep) } : mark;
}

export const moveRect = <M extends Rect>(mark: M, by: Point): M => ({
  ...mark,
  x: mark.x + by.x,
  y: mark.y + by.y,
});

/** A rectangle that can stand at an angle, in its new place. */
export function throughRect<M extends Rect & { angle?: number | undefined }>(
  mark: M,
  map: Mapping,
): M {
  const { angle, ...rect } = mappedRect(mark, mark.angle ?? 0, map);
  const { angle: _, ...upright } = mark;
  return (angle === 0 ? { ...upright, ...rect } : { ...mark, ...rect, angle }) as M;
}

export const rectNumbers = (mark: Rect): NumberField[] => [
  { id: 'x', label: 'Left', value: mark.x },
  { id: 'y', label: 'Top', value: mark.y },
  { id: 'width', label: 'Width', value: mark.width },
  { id: 'height', label: 'Height', value: mark.height },
];

export function withRectNumber<M extends Rect>(mark: M, field: string, value: number): M {
  if (field === 'x' || field === 'y') return { ...mark, [field]: value };
  if (field === 'width' || field === 'height') return { ...mark, [field]: Math.max(1, value) };
  return mark;
}

/** Fills and outlines the path that `trace` adds. */
export function paintEnclosing(
  surface: Surface,
  mark: Omit<RectMark, keyof Rect>,
  trace: () => void,
): void {
  if (mark.fill) {
    surface.save();
    surface.globalAlpha *= mark.fillOpacity;
    surface.fillStyle = mark.fill;
    surface.beginPath();
    trace();
    surface.fill();
    surface.restore();
  }
  if (mark.outline === 0) return;
  surface.strokeStyle = mark.colour;
  surface.lineWidth = mark.outline;
  surface.lineJoin = 'round';
  surface.lineCap = 'butt';
  surface.setLineDash(mark.dashed ? [mark.outline * 2.5, mark.outline * 1.75] : []);
  surface.beginPath();
  trace();
  surface.stroke();
  surface.setLineDash([]);
}

export const describeRect = (mark: Rect): string =>
  `${Math.round(mark.width)} × ${Math.round(mark.height)} px`;
