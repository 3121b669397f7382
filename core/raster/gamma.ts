/**
 * The gamma that a PNG says its samples were written with, as the exponent that brings them to
 * those of a screen; null where it says nothing of it, says more (a profile, sRGB), or so little is
 * to be changed that libpng leaves them as well.
 * Source: W3C, PNG Third Edition, §11.3.2.2 and §13.13; libpng, png_set_gamma and
 * PNG_GAMMA_THRESHOLD.
 */
export function gammaOfPng(bytes: Uint8Array): number | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let gamma: number | null = null;
  let at = 8;
  for (let chunk = 0; chunk < MOST_CHUNKS && at + 12 <= bytes.length; chunk += 1) {
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (type === 'IDAT') break;
    if (['iCCP', 'sRGB', 'cICP'].includes(type)) return null;
    if (type === 'gAMA' && view.getUint32(at) === 4) gamma = view.getUint32(at + 8) / UNIT;
    at += 12 + view.getUint32(at);
  }
  if (!gamma || gamma < LEAST || gamma > MOST) return null;
  const together = gamma * SCREEN;
  return Math.abs(together - 1) < THRESHOLD ? null : 1 / together;
}

/** No more are looked at than writers put before the pixels: a file of nothing but chunks has millions. */
const MOST_CHUNKS = 1_000;
const UNIT = 100_000;
const SCREEN = 2.2;
const THRESHOLD = 0.05;
/** Beyond these nobody means what is written. */
const LEAST = 0.01;
const MOST = 10;

/**
 * Samples with an exponent put on their colours, as 8 bits each.
 * @param samples grey or red, green, blue, with alpha as the last of an even number of channels;
 * of 8 bits or of 16, row-major
 */
export function withExponent(
  samples: Uint8Array | Uint16Array,
  channels: 1 | 2 | 3 | 4,
  exponent: number,
): Uint8Array<ArrayBuffer> {
  const most = samples instanceof Uint16Array ? 65_535 : 255;
  const curve = Uint8Array.from({ length: most + 1 }, (_, i) =>
    Math.round(255 * (i / most) ** exponent),
  );
  const alpha = channels % 2 === 0 ? channels - 1 : -1;
  const out = new Uint8Array(samples.length);
  for (let i = 0; i < samples.length; i += 1) {
    const sample = samples[i] ?? 0;
    out[i] = i % channels === alpha ? Math.round((sample * 255) / most) : (curve[sample] ?? 0);
  }
  return out;
}
