import type { Size } from '../geometry/size';

/** Which way a run of colours goes. */
export type Run = 'down' | 'across' | 'slant';

export interface ThrownShadow {
  x: number;
  y: number;
  /** Standard deviation of its edge. */
  deviation: number;
  colour: string;
  /** 0–1. */
  opacity: number;
}

/**
 * The part of the Canvas 2D interface that the browser's canvas, OffscreenCanvas and the Node
 * canvas share, and that core paints with. The painter composes transforms and never sets them,
 * so a caller can scale or shift what is painted.
 */
export interface Surface {
  get fillStyle(): unknown;
  set fillStyle(value: string);
  get strokeStyle(): unknown;
  set strokeStyle(value: string);
  globalAlpha: number;
  globalCompositeOperation: string;
  lineWidth: number;
  lineCap: 'butt' | 'round' | 'square';
  lineJoin: 'bevel' | 'miter' | 'round';
  save(): void;
  restore(): void;
  translate(x: number, y: number): void;
  scale(x: number, y: number): void;
  /** Clockwise, in radians. */
  rotate(angle: number): void;
  beginPath(): void;
  closePath(): void;
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void;
  bezierCurveTo(ax: number, ay: number, bx: number, by: number, x: number, y: number): void;
  rect(x: number, y: number, width: number, height: number): void;
  fill(): void;
  stroke(): void;
  clip(): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  clearRect(x: number, y: number, width: number, height: number): void;
  drawImage(image: unknown, x: number, y: number): void;
  setLineDash(segments: number[]): void;
  /** Only of a surface that can thin out together what `draw` draws, opacity 0–1. */
  faded?(opacity: number, blend: string, draw: () => void): void;
  /** Only of a surface that holds shapes: what `draw` draws, with its shadow below it. */
  shadowed?(shadow: ThrownShadow, whole: Size, draw: () => void): void;
  /** Only of a surface that holds shapes: a rectangle at 0, 0 that runs from one colour to another. */
  gradientRect?(width: number, height: number, colours: readonly [string, string], run: Run): void;
}
