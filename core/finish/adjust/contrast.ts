import type { Adjustment } from './contract';

/** Linear transfer around middle grey (W3C, Filter Effects Module Level 1, § 13, contrast()). */
export const contrast: Adjustment = {
  label: 'Contrast',
  most: 300,
  none: 100,
  effect: { by: 'transfer', of: (slope) => ({ slope, intercept: 0.5 - 0.5 * slope }) },
  filter: (percent) => `contrast(${percent}%)`,
};
