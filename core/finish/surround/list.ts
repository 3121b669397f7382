/** Every part that can be around a picture: one file here and one line, from the picture outwards. */
export { fold } from './fold';
export { ragged } from './ragged';
export { border } from './border';
export { tilt } from './tilt';
export { shadow } from './shadow';
export { background } from './background';
export { caption } from './caption';
export { watermark } from './watermark';
