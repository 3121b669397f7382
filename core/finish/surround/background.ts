import { z } from 'zod';
import { colour } from '../../values/shapes';
import type { Size } from '../../geometry/size';
import type { Part } from './contract';

export const runs = ['down', 'across', 'slant'] as const;

const side = z.int().min(1).max(100);
const schema = z.strictObject({
  /** None leaves it transparent, two run from one to the other. */
  colours: z.array(colour).max(2),
  run: z.enum(runs),
  /** On each side. */
  room: z.int().min(0).max(4000),
  /** The whole is brought to this ratio by more room. */
  ratio: z.strictObject({ width: side, height: side }).optional(),
});
export type Background = z.infer<typeof schema>;

export const background: Part<typeof schema> = {
  label: 'Background',
  schema,
  first: { colours: ['#DCE9E2'], run: 'down', room: 48 },
};

/** The smallest size in a ratio that holds another. */
export function inRatio({ width, height }: Size, ratio: Size | undefined): Size {
  if (!ratio) return { width, height };
  return {
    width: Math.max(width, Math.round((height * ratio.width) / ratio.height)),
    height: Math.max(height, Math.round((width * ratio.height) / ratio.width)),
  };
}

/** Red, green and blue, 0–255. */
export const channelsOf = (hex: string): [number, number, number] => [
  parseInt(hex.slice(1, 3), 16),
  parseInt(hex.slice(3, 5), 16),
  parseInt(hex.slice(5, 7), 16),
];

/**
 * A run from one colour to another over a rectangle, in sRGB.
 * @returns RGBA, row-major, opaque
 */
export function gradient(
  { width, height }: Size,
  [from, to]: readonly [string, string],
  run: Background['run'],
): Uint8ClampedArray<ArrayBuffer> {
  const [[r, g, b], [r2, g2, b2]] = [channelsOf(from), channelsOf(to)];
  const data = new Uint8ClampedArray(width * height * 4);
  const words = new Uint32Array(data.buffer);
  const mixed = (t: number): number =>
    (0xff000000 |
      (Math.round(b + (b2 - b) * t) << 16) |
      (Math.round(g + (g2 - g) * t) << 8) |
      Math.round(r + (r2 - r) * t)) >>>
    0;
  const steps = run === 'down' ? height : run === 'across' ? width : width * height * 2;
  if (run === 'slant') {
    // Places on one line of equal colour have equal x/width + y/height.
    const table = Uint32Array.from({ length: 4096 }, (_, i) => mixed((i + 0.5) / 4096));
    const across = (height * 4096) / steps;
    for (let y = 0, at = 0; y < height; y += 1) {
      const down = ((y + 0.5) * width * 4096) / steps;
      for (let x = 0; x < width; x += 1, at += 1) {
        words[at] = table[((x + 0.5) * across + down) | 0] as number;
      }
    }
    return data;
  }
  const table = Uint32Array.from({ length: steps }, (_, i) => mixed((i + 0.5) / steps));
  for (let y = 0; y < height; y += 1) {
    if (run === 'across') words.set(table, y * width);
    else words.fill(table[y] ?? 0, y * width, (y + 1) * width);
  }
  return data;
}
