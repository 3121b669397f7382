/*
 * Brightness Y and the colour differences Cb and Cr, of red, green and blue and back (ITU-T H.273,
 * §8.3, equations 38 to 61). All are from 0 to 255.
 */

/** How the three planes are made of red, green and blue. */
export interface Planes {
  /** One sample of colour for two by two pixels (4:2:0), else one for each (4:4:4). */
  half: boolean;
  /** From 0 to 255, else Y from 16 to 235 and colours from 16 to 240. */
  full: boolean;
  /** By ITU-R BT.709-6, else by BT.601-7. */
  matrix: 'bt709' | 'bt601';
}

/** How bright red and blue are, as their share of white (BT.709-6, item 3.2; BT.601-7, item 2.5.1). */
const SHARES = { bt709: [0.2126, 0.0722], bt601: [0.299, 0.114] } as const;

/** What brightness and colours are multiplied with, and what is added to both. */
function rangeOf({ full }: Planes) {
  return full
    ? { y: 1, colour: 1, black: 0, middle: 128 }
    : { y: 219 / 255, colour: 224 / 255, black: 16, middle: 128 };
}

/** What each value of a sample adds to red, green and blue: whole numbers, of which `ONE` make one. */
interface Tables {
  bright: Int32Array;
  redOfCr: Int32Array;
  greenOfCb: Int32Array;
  greenOfCr: Int32Array;
  blueOfCb: Int32Array;
}
export const BITS = 16;
const ONE = 1 << BITS;

function madeTables(planes: Planes): Tables {
  const [red, blue] = SHARES[planes.matrix];
  const green = 1 - red - blue;
  const { y, colour, black, middle } = rangeOf(planes);
  const each = (of: (value: number) => number) =>
    Int32Array.from({ length: 256 }, (_, i) => Math.round(ONE * of(i)));
  const off = (value: number) => (value - middle) / colour;
  return {
    // What is cut off after the sum is rounded so.
    bright: each((value) => (value - black) / y + 0.5),
    redOfCr: each((value) => 2 * (1 - red) * off(value)),
    greenOfCb: each((value) => (-2 * (1 - blue) * blue * off(value)) / green),
    greenOfCr: each((value) => (-2 * (1 - red) * red * off(value)) / green),
    blueOfCb: each((value) => 2 * (1 - blue) * off(value)),
  };
}

const tables = new Map<string, Tables>();
export function tablesOf(planes: Planes): Tables {
  const key = `${planes.matrix} ${planes.full}`;
  const made = tables.get(key) ?? madeTables(planes);
  tables.set(key, made);
  return made;
}

/** How a sample of each plane is made of red, green and blue. */
export function weightsOf(planes: Planes) {
  const { y: scale, colour, black, middle } = rangeOf(planes);
  const [red, blue] = SHARES[planes.matrix];
  const green = 1 - red - blue;
  const [perBlue, perRed] = [colour / (2 * (1 - blue)), colour / (2 * (1 - red))];
  // Nothing is below 0, so that adding a half and cutting off rounds.
  const rounded = (value: number): number => Math.min(255, Math.trunc(value + 0.5));
  const bright = (r: number, g: number, b: number): number => red * r + green * g + blue * b;
  return {
    brightness: (r: number, g: number, b: number) => rounded(black + scale * bright(r, g, b)),
    colours: {
      blue: (r: number, g: number, b: number) => rounded(middle + perBlue * (b - bright(r, g, b))),
      red: (r: number, g: number, b: number) => rounded(middle + perRed * (r - bright(r, g, b))),
    },
  };
}
