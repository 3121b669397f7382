import { bmpHeader, BmpProblem, type BmpHeader } from '@/core/raster/bmp/header';
import { damaged, unread } from './unread';

/** What stands in the header of a BMP file. @throws Fault 415 not read, 422 damaged */
export function readBmpHeader(bytes: Uint8Array): BmpHeader {
  try {
    return bmpHeader(bytes);
  } catch (error) {
    throw error instanceof BmpProblem && error.unread ? unread(error.message) : damaged();
  }
}
