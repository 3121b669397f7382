import type { Surface } from '../drawing/surface';

/** How far a halo reaches beyond its mark, pixels. */
export const HALO = 2.5;

/**
 * A surface that draws a light or dark edge of whatever is painted on it: everything a little
 * larger and in one colour. The mark itself is painted over it afterwards.
 */
export class HaloSurface implements Surface {
  constructor(
    private readonly to: Surface,
    private readonly colour: string,
  ) {}

  get fillStyle(): unknown {
    return this.colour;
  }
  set fillStyle(_: string) {
    // Everything has the halo's colour.
  }
  get strokeStyle(): unknown {
    return this.colour;
  }
  set strokeStyle(_: string) {
    // As above.
  }
  get globalAlpha(): number {
    return this.to.globalAlpha;
  }
  set globalAlpha(_: number) {
    // A halo is not thinned out with its mark.
  }
  get globalCompositeOperation(): string {
    return this.to.globalCompositeOperation;
  }
  set globalCompositeOperation(value: string) {
    this.to.globalCompositeOperation = value;
  }
  get lineWidth(): number {
    return this.to.lineWidth;
  }
  set lineWidth(value: number) {
    this.to.lineWidth = value;
  }
  get lineCap(): Surface['lineCap'] {
    return this.to.lineCap;
  }
  set lineCap(value: Surface['lineCap']) {
    // A butt end would leave the ends of the mark without an edge.
    this.to.lineCap = value === 'butt' ? 'square' : value;
  }
  get lineJoin(): Surface['lineJoin'] {
    return this.to.lineJoin;
  }
  set lineJoin(value: Surface['lineJoin']) {
    this.to.lineJoin = value;
  }

  save(): void {
    this.to.save();
  }
  restore(): void {
    this.to.restore();
  }
  translate(x: number, y: number): void {
    this.to.translate(x, y);
  }
  scale(x: number, y: number): void {
    this.to.scale(x, y);
  }
  rotate(angle: number): void {
    this.to.rotate(angle);
  }
  beginPath(): void {
    this.to.beginPath();
  }
  closePath(): void {
    this.to.closePath();
  }
  moveTo(x: number, y: number): void {
    this.to.moveTo(x, y);
  }
  lineTo(x: number, y: number): void {
    this.to.lineTo(x, y);
  }
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void {
    this.to.quadraticCurveTo(cx, cy, x, y);
  }
  bezierCurveTo(ax: number, ay: number, bx: number, by: number, x: number, y: number): void {
    this.to.bezierCurveTo(ax, ay, bx, by, x, y);
  }
  rect(x: number, y: number, width: number, height: number): void {
    this.to.rect(x, y, width, height);
  }
  fill(): void {
    const { to } = this;
    const width = to.lineWidth;
    to.strokeStyle = this.colour;
    to.fillStyle = this.colour;
    to.lineWidth = 2 * HALO;
    to.lineJoin = 'round';
    to.stroke();
    to.fill();
    to.lineWidth = width;
  }
  stroke(): void {
    const { to } = this;
    const width = to.lineWidth;
    to.strokeStyle = this.colour;
    to.lineWidth = width + 2 * HALO;
    to.stroke();
    to.lineWidth = width;
  }
  clip(): void {
    this.to.clip();
  }
  fillRect(x: number, y: number, width: number, height: number): void {
    this.to.fillStyle = this.colour;
    this.to.fillRect(x - HALO, y - HALO, width + 2 * HALO, height + 2 * HALO);
  }
  clearRect(): void {
    // Nothing is taken away.
  }
  drawImage(): void {
    // Pictures have no edge to be lit.
  }
  setLineDash(segments: number[]): void {
    this.to.setLineDash(segments);
  }
}
