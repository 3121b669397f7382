import type { Adjustment } from './contract';

/** The picture and what it differs by from itself softened; `sharpen.ts` says how. */
export const sharpened: Adjustment = {
  label: 'Sharpened',
  most: 200,
  none: 0,
  effect: { by: 'neighbours' },
  filter: null,
};
