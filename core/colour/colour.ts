/** sRGB, each channel 0–255. */
export interface Rgb {
  r: number;
  g: number;
  b: number;
}

const HEX = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i;

/** Reads #RRGGBB (CSS Color 4 §5.2, six digits); null for anything else. */
export function parseHex(hex: string): Rgb | null {
  const [, r, g, b] = HEX.exec(hex) ?? [];
  if (!r || !g || !b) return null;
  return { r: parseInt(r, 16), g: parseInt(g, 16), b: parseInt(b, 16) };
}

export function toHex({ r, g, b }: Rgb): string {
  return `#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`.toUpperCase();
}

const linear = (channel: number): number => {
  const c = channel / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
};

/** Relative luminance 0–1 (W3C, WCAG 2.2, definition of relative luminance). */
export const luminance = ({ r, g, b }: Rgb): number =>
  0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b);

/** Contrast ratio 1–21 of two colours (W3C, WCAG 2.2, definition of contrast ratio). */
export function contrast(a: Rgb, b: Rgb): number {
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

/** Ink that can be read on the given ground: the darker or the lighter of two. */
export function readableOn(ground: string, dark = '#1C2B2A', light = '#FFFFFF'): string {
  const g = parseHex(ground);
  const d = parseHex(dark);
  const l = parseHex(light);
  if (!g || !d || !l) return dark;
  return contrast(g, d) >= contrast(g, l) ? dark : light;
}
