import { decode } from 'bmp-ts';
import { Fault } from '../http/fault';

const HEADER_BYTES = 54;

export const damaged = () =>
  new Fault(422, 'damaged', 'This picture is damaged or cut short. Nothing was stored.');

/** Decoded pixels: RGBA, row-major, width × height × 4. */
export interface DecodedBmp {
  data: Uint8Array<ArrayBuffer>;
  width: number;
  height: number;
  /** True when its fourth byte says nothing. */
  opaque: boolean;
}

/** The size in the header, in pixels (Microsoft, bitmap storage). @throws Fault 422 damaged */
export function bmpSize(bytes: Uint8Array): { width: number; height: number } {
  if (bytes.length < HEADER_BYTES) throw damaged();
  const header = viewOf(bytes);
  return {
    width: Math.max(0, header.getInt32(18, true)),
    height: Math.abs(header.getInt32(22, true)),
  };
}

/** Decodes it, which takes a while: never on an event loop. @throws Fault 422 damaged */
export function readBmp(bytes: Uint8Array): DecodedBmp {
  const { width, height } = bmpSize(bytes);
  const header = viewOf(bytes);
  const bits = header.getUint16(28, true);
  const compressed = header.getUint32(30, true);
  const rowBytes = Math.ceil((width * bits) / 32) * 4;
  const plain = compressed === 0 || compressed === 3;
  if (plain && header.getUint32(10, true) + rowBytes * height > bytes.length) throw damaged();
  let data: Uint8Array<ArrayBuffer>;
  try {
    data = new Uint8Array(decode(Buffer.from(bytes), { toRGBA: true }).data);
  } catch {
    throw damaged();
  }
  // Most writers leave the fourth byte of 32-bit files empty: it is transparency only if some is set.
  return { data, width, height, opaque: bits !== 32 || !hasAlpha(data) };
}

const viewOf = (bytes: Uint8Array) =>
  new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

function hasAlpha(rgba: Uint8Array): boolean {
  for (let i = 3; i < rgba.length; i += 4) if (rgba[i] !== 0) return true;
  return false;
}
