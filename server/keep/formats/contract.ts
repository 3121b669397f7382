import type { Pixels } from '../../paint/flatten';

export interface EncodeOptions {
  /** 1–100, for formats that lose something. */
  quality: number;
}

/** Everything that makes a file format, in one place. */
export interface Format {
  name: string;
  mediaType: string;
  extension: string;
  transparent: boolean;
  encode(pixels: Pixels, options: EncodeOptions): Promise<Uint8Array>;
}
