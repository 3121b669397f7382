import { parseHex, type Rgb } from './colour';

/** Hue 0–360°, saturation and lightness 0–100 % (CSS Color Module Level 4, §7: rgbToHsl). */
export function toHsl({ r, g, b }: Rgb): { h: number; s: number; l: number } {
  const [red, green, blue] = [r / 255, g / 255, b / 255];
  const most = Math.max(red, green, blue);
  const least = Math.min(red, green, blue);
  const l = (most + least) / 2;
  const d = most - least;
  if (d === 0) return { h: 0, s: 0, l: l * 100 };
  const s = (most - l) / Math.min(l, 1 - l);
  const sixth =
    most === red
      ? (green - blue) / d + (green < blue ? 6 : 0)
      : most === green
        ? (blue - red) / d + 2
        : (red - green) / d + 4;
  return { h: sixth * 60, s: s * 100, l: l * 100 };
}

/** A colour in the three ways it is written in style sheets; whole numbers. */
export function formatColour(hex: string): { hex: string; rgb: string; hsl: string } {
  const rgb = parseHex(hex) ?? { r: 0, g: 0, b: 0 };
  const { h, s, l } = toHsl(rgb);
  return {
    hex,
    rgb: `rgb(${rgb.r} ${rgb.g} ${rgb.b})`,
    hsl: `hsl(${Math.round(h) % 360} ${Math.round(s)}% ${Math.round(l)}%)`,
  };
}
