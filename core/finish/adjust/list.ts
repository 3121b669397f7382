/** Every adjustment: one file here and one line. What each does and its place are in `adjust.ts`. */
export { brightness } from './brightness';
export { contrast } from './contrast';
export { grey } from './grey';
export { inverted } from './inverted';
export { saturation } from './saturation';
export { sharpened } from './sharpened';
