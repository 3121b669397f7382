/** Pixels as the server’s canvases draw them. */
export { bitmap as testBitmap } from '@/server/paint/flatten';
