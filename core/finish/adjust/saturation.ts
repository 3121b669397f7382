import type { Adjustment } from './contract';

/** The matrix of feColorMatrix, type saturate (W3C, Filter Effects Module Level 1, § 13, saturate()). */
export const saturation: Adjustment = {
  label: 'Saturation',
  most: 300,
  none: 100,
  effect: {
    by: 'matrix',
    of: (s) => [
      ...([0.213 + 0.787 * s, 0.715 - 0.715 * s, 0.072 - 0.072 * s] as const),
      ...([0.213 - 0.213 * s, 0.715 + 0.285 * s, 0.072 - 0.072 * s] as const),
      ...([0.213 - 0.213 * s, 0.715 - 0.715 * s, 0.072 + 0.928 * s] as const),
    ],
  },
  filter: (percent) => `saturate(${percent}%)`,
};
