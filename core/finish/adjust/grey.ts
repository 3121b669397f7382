import type { Adjustment } from './contract';

/** The matrix of the shorthand (W3C, Filter Effects Module Level 1, § 13, grayscale()). */
export const grey: Adjustment = {
  label: 'Greyscale',
  most: 100,
  none: 0,
  isSwitch: true,
  effect: {
    by: 'matrix',
    of: (amount) => {
      const s = 1 - amount;
      return [
        ...([0.2126 + 0.7874 * s, 0.7152 - 0.7152 * s, 0.0722 - 0.0722 * s] as const),
        ...([0.2126 - 0.2126 * s, 0.7152 + 0.2848 * s, 0.0722 - 0.0722 * s] as const),
        ...([0.2126 - 0.2126 * s, 0.7152 - 0.7152 * s, 0.0722 + 0.9278 * s] as const),
      ];
    },
  },
  filter: (percent) => `grayscale(${percent}%)`,
};
