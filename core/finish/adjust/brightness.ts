import type { Adjustment } from './contract';

/** Linear transfer with the amount as its slope (W3C, Filter Effects Module Level 1, § 13, brightness()). */
export const brightness: Adjustment = {
  label: 'Brightness',
  most: 300,
  none: 100,
  effect: { by: 'transfer', of: (slope) => ({ slope, intercept: 0 }) },
  filter: (percent) => `brightness(${percent}%)`,
};
