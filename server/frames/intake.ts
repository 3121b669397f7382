import { createHash } from 'node:crypto';
import { decode as decodeBmp } from 'bmp-ts';
import sharp, { type Sharp } from 'sharp';
import { limits } from '@/core/contracts/limits';
import { Fault } from '../http/fault';
import { isPlainPng, pictureType, type PictureType } from './kind';

/** A frame ready to be stored: a PNG of 8-bit sRGB pixels, upright. */
export interface Frame {
  bytes: Uint8Array;
  sha256: string;
  width: number;
  height: number;
  /** True when no pixel is transparent. */
  opaque: boolean;
  /** What was sent, when the frame had to be written anew. */
  original: { bytes: Uint8Array; type: PictureType } | null;
}

const notAPicture = () =>
  new Fault(
    415,
    'not-a-picture',
    'This is not a picture that Rezzik can read. It reads PNG, JPEG, WebP, GIF, BMP, TIFF and AVIF.',
  );
const damaged = () =>
  new Fault(422, 'damaged', 'This picture is damaged or cut short. Nothing was stored.');

/**
 * Checks a picture of any readable kind and turns it into a frame.
 * @throws Fault 413 over the limits, 415 not a picture, 422 damaged or empty
 */
export async function takeIn(bytes: Uint8Array): Promise<Frame> {
  if (bytes.length === 0) throw new Fault(422, 'empty', 'This file is empty.');
  if (bytes.length > limits.pictureBytes) {
    throw new Fault(413, 'too-large', 'A picture may have at most 128 MB.');
  }
  const type = pictureType(bytes);
  if (!type) throw notAPicture();
  try {
    return type === 'png' && isPlainPng(bytes) ? await asItIs(bytes) : await anew(bytes, type);
  } catch (error) {
    if (error instanceof Fault) throw error;
    throw damaged();
  }
}

function open(bytes: Uint8Array): Sharp {
  return sharp(bytes, { failOn: 'error', limitInputPixels: limits.pixels, sequentialRead: true });
}

function checkSize(width: number | undefined, height: number | undefined): void {
  if (!width || !height) throw new Fault(422, 'empty', 'This picture has no pixels.');
  if (width * height > limits.pixels || Math.max(width, height) > limits.side) {
    throw new Fault(
      413,
      'too-many-pixels',
      `This picture has ${width} × ${height} pixels; Rezzik takes up to 134 megapixels and 32 767 a side.`,
    );
  }
}

/** The size in the header. A decoder that refuses it for its limits must not hide the numbers. */
async function readSize(bytes: Uint8Array): Promise<void> {
  const { width, height } = await sharp(bytes, { limitInputPixels: false }).metadata();
  checkSize(width, height);
}

async function asItIs(bytes: Uint8Array): Promise<Frame> {
  await readSize(bytes);
  const { width, height } = await open(bytes).metadata();
  // Reads every row, which is also the only way to know that none is missing.
  const opaque = await isOpaque(bytes);
  return { bytes, sha256: sha256(bytes), width, height, opaque, original: null };
}

async function anew(bytes: Uint8Array, type: PictureType): Promise<Frame> {
  const source = type === 'bmp' ? openBmp(bytes) : await openUpright(bytes);
  const { data, info } = await source
    .toColourspace('srgb')
    .png({ compressionLevel: 6 })
    .toBuffer({ resolveWithObject: true });
  checkSize(info.width, info.height);
  return {
    bytes: data,
    sha256: sha256(data),
    width: info.width,
    height: info.height,
    opaque: await isOpaque(data),
    original: { bytes, type },
  };
}

async function openUpright(bytes: Uint8Array): Promise<Sharp> {
  await readSize(bytes);
  return open(bytes).autoOrient();
}

/** Decodes the whole picture and looks at its transparency. */
async function isOpaque(png: Uint8Array): Promise<boolean> {
  const alpha = await open(png).ensureAlpha().extractChannel(3).raw().toBuffer();
  return alpha.equals(Buffer.alloc(alpha.length, 255));
}

const BMP_HEADER_BYTES = 54;

function openBmp(bytes: Uint8Array): Sharp {
  if (bytes.length < BMP_HEADER_BYTES) throw damaged();
  const header = new DataView(bytes.buffer, bytes.byteOffset);
  const width = header.getInt32(18, true);
  const height = Math.abs(header.getInt32(22, true));
  checkSize(Math.max(0, width), height);
  const bits = header.getUint16(28, true);
  const compressed = header.getUint32(30, true);
  const rowBytes = Math.ceil((width * bits) / 32) * 4;
  const plain = compressed === 0 || compressed === 3;
  if (plain && header.getUint32(10, true) + rowBytes * height > bytes.length) throw damaged();
  const { data } = decodeBmp(Buffer.from(bytes), { toRGBA: true });
  // Most writers leave the fourth byte of 32-bit files empty: it is transparency only if some is set.
  const opaque = bits !== 32 || !hasAlpha(data);
  const raw = sharp(data, { raw: { width, height, channels: 4 } });
  return opaque ? raw.removeAlpha() : raw;
}

function hasAlpha(rgba: Uint8Array): boolean {
  for (let i = 3; i < rgba.length; i += 4) if (rgba[i] !== 0) return true;
  return false;
}

export const sha256 = (bytes: Uint8Array): string =>
  createHash('sha256').update(bytes).digest('hex');
