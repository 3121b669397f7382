import type { Frame } from '@/core/stitch/frame';

const clamped = (value: number): number => Math.max(0, Math.min(255, Math.round(value)));

/**
 * A picture as a browser hands over a shared screen: I420, limited range (ITU-R BT.601), one colour
 * for each two by two pixels.
 * @param frame of even width and height
 */
export function asVideo({ words, width, height }: Frame): Frame {
  const out = new Int32Array(words.length);
  for (let y = 0; y < height; y += 2) {
    for (let x = 0; x < width; x += 2) {
      const four = [0, 1, width, width + 1].map((by) => y * width + x + by);
      let [u, v] = [0, 0];
      const lumas = four.map((at) => {
        const word = words[at] ?? 0;
        const [r, g, b] = [word & 255, (word >> 8) & 255, (word >> 16) & 255];
        u += (-0.148 * r - 0.291 * g + 0.439 * b) / 4;
        v += (0.439 * r - 0.368 * g - 0.071 * b) / 4;
        return Math.round(0.257 * r + 0.504 * g + 0.098 * b);
      });
      [u, v] = [Math.round(u), Math.round(v)];
      four.forEach((at, i) => {
        const luma = 1.164 * (lumas[i] ?? 0);
        const r = clamped(luma + 1.596 * v);
        const g = clamped(luma - 0.813 * v - 0.392 * u);
        const b = clamped(luma + 2.017 * u);
        out[at] = 0xff000000 | (b << 16) | (g << 8) | r;
      });
    }
  }
  return { words: out, width, height };
}
