import { toHex, type Rgb } from './colour';

/** A colour as somebody wrote it, or what is wrong with it. */
export type Typed = { hex: string; opacity: number } | { problem: string };

/** Less would show nothing at all. */
export const LEAST_OPACITY = 0.05;

const NUMBER = '[-+]?(?:\\d+\\.?\\d*|\\.\\d+)';
/** Three numbers between spaces or commas, and perhaps an opacity (CSS Color Module Level 4, §5, §7). */
const THREE = new RegExp(
  `^(${NUMBER})(%|deg)?[\\s,]+(${NUMBER})(%)?[\\s,]+(${NUMBER})(%)?(?:\\s*[,/]\\s*(${NUMBER})(%)?)?$`,
);
const CALL = /^(rgb|hsl)a?\s*\(\s*(.*?)\s*\)$/;
const DIGITS = /^#?([0-9a-f]{3,4}|[0-9a-f]{6}|[0-9a-f]{8})$/;

const unknown: Typed = {
  problem: 'That is no colour. Write it as #B8472A, rgb(184 71 42) or hsl(12 63% 44%).',
};

/**
 * Reads a colour as HEX with three, four, six or eight digits, as RGB (0–255 or percent) or as HSL,
 * each with an opacity if wanted: `#B8472A80`, `rgb(184 71 42 / 50%)`, `hsla(12, 63%, 44%, 0.5)`.
 * Three bare numbers are red, green and blue.
 */
export function readColour(text: string): Typed {
  // Decimals may be written with a comma where it cannot part two numbers.
  const said = text
    .trim()
    .toLowerCase()
    .replace(/\/\s*(\d*),(\d)/, '/ $1.$2');
  const [, digits] = DIGITS.exec(said) ?? [];
  if (digits) return fromDigits(digits);
  const [, name = 'rgb', within = said] = CALL.exec(said) ?? [];
  const found = THREE.exec(within);
  if (!found) return unknown;
  const values = [found[1], found[3], found[5]].map(Number);
  const units = [found[2], found[4], found[6]];
  const alpha = found[7] === undefined ? 1 : Number(found[7]) / (found[8] ? 100 : 1);
  const made = name === 'hsl' ? fromHsl(values, units) : fromRgb(values, units);
  return 'problem' in made ? made : withOpacity(made, alpha);
}

function withOpacity(rgb: Rgb, opacity: number): Typed {
  if (opacity < 0 || opacity > 1)
    return { problem: 'An opacity is from 0 to 1, or from 0 to 100 %.' };
  if (opacity < LEAST_OPACITY) {
    return { problem: 'So faint a mark would not be seen. The least opacity is 5 %.' };
  }
  return { hex: toHex(rgb), opacity: Math.round(opacity * 100) / 100 };
}

function fromDigits(digits: string): Typed {
  const pairs = digits.length < 6 ? digits.replace(/./g, '$&$&') : digits;
  const [r = 0, g = 0, b = 0, a = 255] = (pairs.match(/../g) ?? []).map((two) => parseInt(two, 16));
  return withOpacity({ r, g, b }, a / 255);
}

type Channels = Rgb | { problem: string };

function fromRgb(values: number[], units: (string | undefined)[]): Channels {
  if (units.includes('deg')) return { problem: 'Red, green and blue have no degrees.' };
  const [r = 0, g = 0, b = 0] = values.map((v, i) => (units[i] === '%' ? (v * 255) / 100 : v));
  const channels = [r, g, b].map(Math.round);
  if (channels.some((v) => v < 0 || v > 255)) {
    return { problem: 'Red, green and blue are each from 0 to 255, or from 0 to 100 %.' };
  }
  const [red = 0, green = 0, blue = 0] = channels;
  return { r: red, g: green, b: blue };
}

/** CSS Color Module Level 4, §7.1: hslToRgb. */
function fromHsl([hue = 0, s = 0, l = 0]: number[], units: (string | undefined)[]): Channels {
  if (units[0] === '%') return { problem: 'A hue is in degrees, from 0 to 360.' };
  if ([s, l].some((v) => v < 0 || v > 100)) {
    return { problem: 'Saturation and lightness are each from 0 to 100 %.' };
  }
  const [saturation, light] = [s / 100, l / 100];
  const a = saturation * Math.min(light, 1 - light);
  const channel = (n: number) => {
    const k = (((n + hue / 30) % 12) + 12) % 12;
    return Math.round(255 * (light - a * Math.max(-1, Math.min(k - 3, 9 - k, 1))));
  };
  return { r: channel(0), g: channel(8), b: channel(4) };
}

/** A colour as it is written, with its opacity where it has one. */
export const writeColour = (hex: string, opacity = 1): string =>
  opacity < 1
    ? hex +
      Math.round(opacity * 255)
        .toString(16)
        .padStart(2, '0')
        .toUpperCase()
    : hex;
