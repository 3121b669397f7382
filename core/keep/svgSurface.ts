import type { Matrix } from '../geometry/matrix';
import { identity, multiply, rotation, scaling, translation } from '../geometry/matrix';
import type { Run, Surface, ThrownShadow } from '../drawing/surface';
import type { Size } from '../geometry/size';

interface State {
  matrix: Matrix;
  clip: string | null;
  fillStyle: string;
  strokeStyle: string;
  globalAlpha: number;
  globalCompositeOperation: string;
  lineWidth: number;
  lineCap: Surface['lineCap'];
  lineJoin: Surface['lineJoin'];
  dash: readonly number[];
}

const first: State = {
  matrix: identity,
  clip: null,
  fillStyle: '#000000',
  strokeStyle: '#000000',
  globalAlpha: 1,
  globalCompositeOperation: 'source-over',
  lineWidth: 1,
  lineCap: 'butt',
  lineJoin: 'miter',
  dash: [],
};

/** Hundredths of a pixel are finer than any screen. */
const n = (value: number): string => String(Math.round(value * 100) / 100);

/** A drawable that has a size. */
export interface Drawable {
  width: number;
  height: number;
}

/**
 * A surface that writes what is painted on it down as SVG shapes (W3C, SVG 2). Pictures become
 * images; only the blending that marks use is known.
 */
export class SvgSurface implements Surface {
  private state: State = first;
  private readonly saved: State[] = [];
  private path = '';
  private clips = 0;
  private readonly definitions: string[] = [];
  private readonly elements: string[] = [];

  /**
   * @param prefix begins every id, so that several drawings can stand in one file
   * @param dataUri a picture that is drawn as a data address
   */
  constructor(
    private readonly prefix: string,
    private readonly dataUri: (image: Drawable) => string,
  ) {}

  /** What was painted since the last call. */
  take(): string {
    const all = [...this.definitions, ...this.elements].join('');
    this.definitions.length = 0;
    this.elements.length = 0;
    return all;
  }

  get fillStyle(): unknown {
    return this.state.fillStyle;
  }
  set fillStyle(value: string) {
    this.set({ fillStyle: value });
  }
  get strokeStyle(): unknown {
    return this.state.strokeStyle;
  }
  set strokeStyle(value: string) {
    this.set({ strokeStyle: value });
  }
  get globalAlpha(): number {
    return this.state.globalAlpha;
  }
  set globalAlpha(value: number) {
    this.set({ globalAlpha: value });
  }
  get globalCompositeOperation(): string {
    return this.state.globalCompositeOperation;
  }
  set globalCompositeOperation(value: string) {
    this.set({ globalCompositeOperation: value });
  }
  get lineWidth(): number {
    return this.state.lineWidth;
  }
  set lineWidth(value: number) {
    this.set({ lineWidth: value });
  }
  get lineCap(): Surface['lineCap'] {
    return this.state.lineCap;
  }
  set lineCap(value: Surface['lineCap']) {
    this.set({ lineCap: value });
  }
  get lineJoin(): Surface['lineJoin'] {
    return this.state.lineJoin;
  }
  set lineJoin(value: Surface['lineJoin']) {
    this.set({ lineJoin: value });
  }

  private set(change: Partial<State>): void {
    this.state = { ...this.state, ...change };
  }

  save(): void {
    this.saved.push(this.state);
  }
  restore(): void {
    this.state = this.saved.pop() ?? this.state;
  }
  private transform(by: Matrix): void {
    this.set({ matrix: multiply(this.state.matrix, by) });
  }
  translate(x: number, y: number): void {
    this.transform(translation(x, y));
  }
  scale(x: number, y: number): void {
    this.transform(scaling(x, y));
  }
  rotate(angle: number): void {
    this.transform(rotation((angle * 180) / Math.PI));
  }

  beginPath(): void {
    this.path = '';
  }
  closePath(): void {
    this.path += 'Z';
  }
  moveTo(x: number, y: number): void {
    this.path += `M${n(x)} ${n(y)}`;
  }
  lineTo(x: number, y: number): void {
    this.path += `${this.path === '' ? 'M' : 'L'}${n(x)} ${n(y)}`;
  }
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void {
    this.path += `Q${n(cx)} ${n(cy)} ${n(x)} ${n(y)}`;
  }
  bezierCurveTo(ax: number, ay: number, bx: number, by: number, x: number, y: number): void {
    this.path += `C${n(ax)} ${n(ay)} ${n(bx)} ${n(by)} ${n(x)} ${n(y)}`;
  }
  rect(x: number, y: number, width: number, height: number): void {
    this.path += `M${n(x)} ${n(y)}h${n(width)}v${n(height)}h${n(-width)}Z`;
  }

  fill(): void {
    this.shape(`fill="${this.state.fillStyle}"${this.opacity('fill-opacity')}`);
  }
  stroke(): void {
    const { strokeStyle, lineWidth, lineCap, lineJoin, dash } = this.state;
    const dashes = dash.length ? ` stroke-dasharray="${dash.map(n).join(' ')}"` : '';
    this.shape(
      `fill="none" stroke="${strokeStyle}" stroke-width="${n(lineWidth)}"` +
        ` stroke-linecap="${lineCap}" stroke-linejoin="${lineJoin}"${dashes}` +
        this.opacity('stroke-opacity'),
    );
  }

  private opacity(attribute: string): string {
    const { globalAlpha } = this.state;
    return globalAlpha === 1 ? '' : ` ${attribute}="${n(globalAlpha)}"`;
  }

  private shape(look: string): void {
    if (this.path !== '') this.add(`<path d="${this.path}" ${look}${this.place()}/>`);
  }

  private add(element: string): void {
    const { clip } = this.state;
    this.elements.push(clip ? `<g clip-path="url(#${clip})">${element}</g>` : element);
  }

  /** Transform and blending, where they are not the usual ones. */
  private place(): string {
    const [a, b, c, d, e, f] = this.state.matrix;
    const moved = this.state.matrix.some((v, i) => v !== identity[i]);
    const matrix = [a, d, b, e].map((v) => String(Math.round(v * 1e6) / 1e6));
    const transform = moved ? ` transform="matrix(${matrix.join(' ')} ${n(c)} ${n(f)})"` : '';
    const blend = this.state.globalCompositeOperation;
    return blend === 'source-over' ? transform : `${transform} style="mix-blend-mode:${blend}"`;
  }

  clip(): void {
    this.clips += 1;
    const id = `${this.prefix}${this.clips}`;
    const within = this.state.clip ? ` clip-path="url(#${this.state.clip})"` : '';
    const { transform } = { transform: this.place() };
    this.definitions.push(
      `<clipPath id="${id}"${within}><path d="${this.path}"${transform}/></clipPath>`,
    );
    this.set({ clip: id });
  }

  fillRect(x: number, y: number, width: number, height: number): void {
    const before = this.path;
    this.path = '';
    this.rect(x, y, width, height);
    this.fill();
    this.path = before;
  }
  clearRect(): void {
    throw new TypeError('Nothing that was drawn can be taken back.');
  }
  drawImage(image: unknown, x: number, y: number): void {
    const drawable = image as Drawable;
    const { width, height } = drawable;
    this.add(
      `<image x="${n(x)}" y="${n(y)}" width="${width}" height="${height}"` +
        ` href="${this.dataUri(drawable)}"${this.opacity('opacity')}${this.place()}/>`,
    );
  }
  setLineDash(segments: number[]): void {
    this.set({ dash: [...segments] });
  }
  /** What stands in the file under an id, where it is now. */
  use(id: string): void {
    this.add(`<use href="#${id}"${this.place()}/>`);
  }
  gradientRect(
    width: number,
    height: number,
    [from, to]: readonly [string, string],
    run: Run,
  ): void {
    const id = `${this.prefix}run`;
    const end = { down: 'x2="0" y2="1"', across: 'x2="1" y2="0"', slant: 'x2="1" y2="1"' }[run];
    this.definitions.push(
      `<linearGradient id="${id}" x1="0" y1="0" ${end}><stop offset="0" stop-color="${from}"/>` +
        `<stop offset="1" stop-color="${to}"/></linearGradient>`,
    );
    this.add(`<rect width="${n(width)}" height="${n(height)}" fill="url(#${id})"/>`);
  }
  /** As filter primitives (W3C, Filter Effects Module Level 1). */
  shadowed(shadow: ThrownShadow, { width, height }: Size, draw: () => void): void {
    const id = `${this.prefix}shadow`;
    const { x, y, deviation, colour, opacity } = shadow;
    this.definitions.push(
      `<filter id="${id}" filterUnits="userSpaceOnUse" x="0" y="0" width="${n(width)}"` +
        ` height="${n(height)}" color-interpolation-filters="sRGB">` +
        `<feGaussianBlur in="SourceAlpha" stdDeviation="${n(deviation)}"/>` +
        `<feOffset dx="${n(x)}" dy="${n(y)}" result="thrown"/>` +
        `<feFlood flood-color="${colour}" flood-opacity="${n(opacity)}"/>` +
        `<feComposite in2="thrown" operator="in" result="shadow"/>` +
        `<feMerge><feMergeNode in="shadow"/><feMergeNode in="SourceGraphic"/></feMerge></filter>`,
    );
    const start = this.elements.length;
    draw();
    const within = this.elements.splice(start).join('');
    this.elements.push(`<g filter="url(#${id})">${within}</g>`);
  }
  faded(opacity: number, blend: string, draw: () => void): void {
    const start = this.elements.length;
    draw();
    const within = this.elements.splice(start).join('');
    const style = blend === 'source-over' ? '' : ` style="mix-blend-mode:${blend}"`;
    this.elements.push(`<g opacity="${n(opacity)}"${style}>${within}</g>`);
  }
}
