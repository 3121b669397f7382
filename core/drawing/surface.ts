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
}
