import type { Point } from './point';

/** Between two places, in pixels; the angle in degrees clockwise from the x axis, −180 to 180. */
export interface Measure {
  x: number;
  y: number;
  width: number;
  height: number;
  diagonal: number;
  angle: number;
  area: number;
}

export function measure(from: Point, to: Point): Measure {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const [width, height] = [Math.abs(dx), Math.abs(dy)];
  return {
    x: Math.min(from.x, to.x),
    y: Math.min(from.y, to.y),
    width,
    height,
    diagonal: Math.hypot(dx, dy),
    angle: (Math.atan2(dy, dx) * 180) / Math.PI,
    area: width * height,
  };
}

/** The numbers of a measure in words, as they are shown and copied; a tenth of a pixel is enough. */
export function measureWords(from: Point, to: Point): string {
  const m = measure(from, to);
  const round = (v: number) => Math.round(v * 10) / 10;
  return `x ${round(m.x)}, y ${round(m.y)}, width ${round(m.width)}, height ${round(m.height)}, diagonal ${round(m.diagonal)}, angle ${round(m.angle)}°, area ${round(m.area)}`;
}
