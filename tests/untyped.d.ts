declare module 'perspective-transform' {
  interface Transform {
    transform(x: number, y: number): [number, number];
  }
  export default function PerspT(from: readonly number[], to: readonly number[]): Transform;
}

declare module 'omggif' {
  export class GifReader {
    constructor(bytes: Uint8Array);
    decodeAndBlitFrameRGBA(frame: number, into: Uint8Array): void;
  }
}
