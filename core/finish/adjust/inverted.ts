import type { Adjustment } from './contract';

/** Table transfer from the amount to its rest (W3C, Filter Effects Module Level 1, § 13, invert()). */
export const inverted: Adjustment = {
  label: 'Inverted',
  most: 100,
  none: 0,
  isSwitch: true,
  effect: { by: 'transfer', of: (amount) => ({ slope: 1 - 2 * amount, intercept: amount }) },
  filter: (percent) => `invert(${percent}%)`,
};
