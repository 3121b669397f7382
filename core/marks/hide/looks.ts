import { parseHex } from '../../colour/colour';
import { randomFrom } from '../../random/random';
import type { Mask } from '../../raster/mask';
import { OPAQUE, type RgbaPixels } from '../../raster/pixels';
import { planeFit } from './planeFit';
import { smoothFill, type Fill } from './smoothFill';
import { palette, type Colour3, type Surround } from './surround';

// Called for every pixel: a look-up in the global object each time would cost more than the work.
const { imul } = Math;

/** How a hidden area looks; none of it depends on what was there. */
export type Look =
  | { look: 'blur' | 'blocks'; strength: number; seed: number }
  | { look: 'colour'; colour: string }
  | { look: 'across' };

/** Opaque pixels in the mask's shape, transparent elsewhere: row-major, as large as the mask. */
export function hiddenPixels(mask: Mask, surround: Surround, look: Look): RgbaPixels {
  const { width, height } = mask;
  const out = { data: new Uint8ClampedArray(width * height * 4), width, height };
  if (look.look === 'blur' || look.look === 'blocks') paintSpots(out, mask, surround, look);
  else paintFill(out, mask, surround, fillOf(surround, look));
  return out;
}

function fillOf(surround: Surround, look: Look): Fill {
  if (look.look !== 'colour') return planeFit(surround) ?? smoothFill(surround);
  const { r, g, b } = parseHex(look.colour) ?? { r: 0, g: 0, b: 0 };
  const colour = [r, g, b];
  return (_x, _y, into) => into.set(colour);
}

function paintFill(
  { data, width, height }: RgbaPixels,
  mask: Mask,
  at: Surround,
  fill: Fill,
): void {
  const dx = mask.x - at.at.x;
  const dy = mask.y - at.at.y;
  const colour = new Float64Array(3);
  for (let y = 0, i = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, i += 1) {
      if (!mask.data[i]) continue;
      fill(x + dx, y + dy, colour);
      put(data, i * 4, colour[0] ?? 0, colour[1] ?? 0, colour[2] ?? 0);
    }
  }
}

function put(data: Uint8ClampedArray, to: number, r: number, g: number, b: number): void {
  data[to] = r;
  data[to + 1] = g;
  data[to + 2] = b;
  data[to + 3] = 255;
}

/** A grid of colours over a mask, one spot beyond it on every side. */
interface Spots {
  pitch: number;
  columns: number;
  colours: Float64Array;
}

/** How far a spot leans towards another colour of the surround: enough to look like something. */
const LEAN = 0.65;

const SHADE = 0.4;
const PICKS = 3;

/** Of a few colours of the surround the one that differs most: most of them are its ground. */
function farthestOf(from: Float64Array, offered: readonly Colour3[], next: () => number): Colour3 {
  let best: Colour3 = [128, 128, 128];
  let most = -1;
  for (let i = 0; i < PICKS; i += 1) {
    const picked = offered[Math.floor(next() * offered.length)];
    if (!picked) break;
    const far = picked.reduce((sum, v, c) => sum + Math.abs(v - (from[c] ?? 0)), 0);
    if (far > most) [best, most] = [picked, far];
  }
  return best;
}

/** Each spot: the filling there, leaning to a colour of the surround that the seed picks. */
function spotsOf(
  mask: Mask,
  surround: Surround,
  { strength, seed }: { strength: number; seed: number },
): Spots {
  const pitch = Math.max(2, strength);
  const fill = smoothFill(surround);
  const offered: Colour3[] = palette(surround);
  const columns = Math.ceil(mask.width / pitch) + 3;
  const rows = Math.ceil(mask.height / pitch) + 3;
  const colours = new Float64Array(columns * rows * 3);
  const next = randomFrom(seed);
  const dx = mask.x - surround.at.x;
  const dy = mask.y - surround.at.y;
  const from = new Float64Array(3);
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      fill((column - 0.5) * pitch + dx, (row - 0.5) * pitch + dy, from);
      const to = farthestOf(from, offered, next);
      const lean = offered.length ? LEAN * next() : 1;
      // On an even ground some spots are shaded, as words would shade them.
      const shade = SHADE * next() ** 2;
      const dark = from.reduce((sum, v) => sum + v, 0) > 384 ? 0 : 255;
      const i = (row * columns + column) * 3;
      for (const c of [0, 1, 2] as const) {
        const tinted = (from[c] ?? 0) + (to[c] - (from[c] ?? 0)) * lean;
        colours[i + c] = tinted + (dark - tinted) * shade;
      }
    }
  }
  return { pitch, columns, colours };
}

function paintSpots(
  { data, width, height }: RgbaPixels,
  mask: Mask,
  surround: Surround,
  look: { look: 'blur' | 'blocks'; strength: number; seed: number },
): void {
  const { pitch, columns, colours } = spotsOf(mask, surround, look);
  const soft = look.look === 'blur';
  const ease = (t: number) => t * t * (3 - 2 * t);
  /** Spot 0 lies before the mask; its middle is half a pitch outside. */
  const place = (v: number) => v / pitch + (soft ? 0.5 : 1);
  const column = Int32Array.from({ length: width }, (_, x) => Math.floor(place(x)) * 3);
  const across = Int32Array.from({ length: width }, (_, x) =>
    soft ? Math.round(PARTS * ease(place(x) - Math.floor(place(x)))) : 0,
  );
  const words = new Uint32Array(data.buffer, data.byteOffset, width * height);
  const line = new Int32Array(columns * 3);
  for (let y = 0, i = 0; y < height; y += 1) {
    const row = Math.floor(place(y));
    const fy = soft ? ease(place(y) - row) : 0;
    const above = row * columns * 3;
    for (let k = 0; k < line.length; k += 1) {
      const mixed =
        (colours[above + k] ?? 0) * (1 - fy) + (colours[above + columns * 3 + k] ?? 0) * fy;
      line[k] = Math.round(mixed * PARTS);
    }
    for (let x = 0; x < width; x += 1, i += 1) {
      if (!mask.data[i]) continue;
      const k = column[x] as number;
      const f = across[x] as number;
      const r = between(line[k] as number, line[k + 3] as number, f);
      const g = between(line[k + 1] as number, line[k + 4] as number, f);
      const b = between(line[k + 2] as number, line[k + 5] as number, f);
      words[i] = OPAQUE | (b << 16) | (g << 8) | r;
    }
  }
}

/** Whole numbers are mixed in so many parts of a step; several times quicker than fractions. */
const PARTS = 256;
const HALF = (PARTS * PARTS) / 2;

/** Between two values of 0–255 in parts of PARTS, f of PARTS from the first: 0–255. */
const between = (a: number, b: number, f: number): number =>
  (imul(a, PARTS - f) + imul(b, f) + HALF) >> 16;
