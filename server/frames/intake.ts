import type { Size } from '@/core/geometry/size';
import { createHash } from 'node:crypto';
import { isDeepStrictEqual, promisify } from 'node:util';
import { deflate } from 'node:zlib';
import sharp, { type Sharp } from 'sharp';
import { gammaOfPng } from '@/core/raster/gamma';
import { limits } from '@/core/values/limits';
import type { HeldPictures } from '@/core/values/heldPicture';
import { heldArea } from '@/core/document/heldPictures';
import { Fault } from '../base/fault';
import { holding, run } from '../pool/pool';
import { piecesOf, inSharedMemory } from '../base/pieces';
import { readBmpHeader } from './bmp';
import { withProfile } from '@/core/keep/pngText';
import { hasAlpha, isPlainPng, pictureType, type PictureType } from './kind';
import { damaged, refuseUnread, whyUnread } from './unread';

// What else the library could read (drawings, documents) is never handed to it, whatever a file
// says of itself: only these of its decoders exist for this process.
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({
  operation: ['Png', 'Jpeg', 'Webp', 'Nsgif', 'Tiff', 'Heif'].map(
    (name) => `VipsForeignLoad${name}`,
  ),
});

/** How the decoder calls the kinds that it reads itself. */
const decodedAs: Partial<Record<PictureType, string>> = { avif: 'heif' };

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

/**
 * Checks a picture of any readable kind and turns it into a frame.
 * @param most bytes that it may have
 * @throws Fault 413 over the limits, 415 not a picture or not read, 422 damaged or empty
 */
export async function takeIn(
  bytes: Uint8Array,
  most: number = limits.pictureBytes,
): Promise<Frame> {
  if (bytes.length === 0) throw new Fault(422, 'empty', 'This file is empty.');
  if (bytes.length > most) {
    throw new Fault(413, 'too-large', `A picture may have at most ${most / 1_000_000} MB.`);
  }
  const type = pictureType(bytes);
  if (!type) throw notAPicture();
  refuseUnread(bytes, type);
  try {
    const size = await readSize(bytes, type);
    return await holding(size.width * size.height, () =>
      type === 'png' && isPlainPng(bytes) ? asItIs(bytes, size) : anew(bytes, type, size),
    );
  } catch (error) {
    if (error instanceof Fault) throw error;
    throw whyUnread(bytes, type);
  }
}

/**
 * Checks the pictures that a document holds for its pieces, as frames are checked: what they are,
 * their pixels, and that every row is there. Those that were there before are known.
 * @throws Fault 413 over the limits, 415 not a picture, 422 damaged or not of the size it says
 */
export async function checkHeld(
  pictures: HeldPictures | undefined,
  before: HeldPictures | undefined,
): Promise<void> {
  if (heldArea(pictures) > limits.pixels) {
    throw new Fault(
      413,
      'too-many-pixels',
      'The pictures lying on this shot have more than 134 megapixels together.',
    );
  }
  for (const [key, held] of Object.entries(pictures ?? {})) {
    if (isDeepStrictEqual(before?.[key], held)) continue;
    const bytes = Buffer.from(held.png, 'base64');
    if (pictureType(bytes) !== 'png') throw notAPicture();
    try {
      const { width, height } = await readSize(bytes, 'png');
      if (width !== held.width || height !== held.height) throw damaged();
      await holding(width * height, () => isOpaque(bytes));
    } catch (error) {
      throw error instanceof Fault ? error : damaged();
    }
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
async function readSize(bytes: Uint8Array, type: PictureType): Promise<Size> {
  const size = type === 'bmp' ? readBmpHeader(bytes) : await headerSize(bytes, type);
  checkSize(size.width, size.height);
  return { width: size.width, height: size.height };
}

async function headerSize(bytes: Uint8Array, type: PictureType): Promise<Size> {
  const read = await sharp(bytes, { limitInputPixels: false }).metadata();
  if (read.format !== (decodedAs[type] ?? type)) throw notAPicture();
  if (type === 'avif' && read.compression !== 'av1') throw notAPicture();
  return { width: read.width, height: read.height };
}

/** What a frame is stored as. */
type Stored = Pick<Frame, 'bytes' | 'sha256' | 'opaque'>;

/**
 * Every row is read, which is also the only way to know that none is missing. Browsers write a
 * channel of transparency always: without it the same pixels are read twice as fast from then on.
 */
async function stored(png: Uint8Array): Promise<Stored> {
  const opaque = await isOpaque(png);
  const bytes = opaque && hasAlpha(png) ? await withoutAlpha(png) : png;
  return { bytes, sha256: await sha256Of(bytes), opaque };
}

const withoutAlpha = (png: Uint8Array): Promise<Buffer> =>
  open(png).removeAlpha().png({ compressionLevel: 6 }).toBuffer();

async function asItIs(bytes: Uint8Array, size: Size): Promise<Frame> {
  return { ...(await stored(bytes)), ...size, original: null };
}

async function anew(bytes: Uint8Array, type: PictureType, size: Size): Promise<Frame> {
  const { data, info } = await (
    await opened(bytes, type, size)
  )
    .toColourspace('srgb')
    .png({ compressionLevel: 6 })
    .toBuffer({ resolveWithObject: true });
  const { width, height } = info;
  checkSize(width, height);
  return { ...(await stored(data)), width, height, original: { bytes, type } };
}

/** The picture upright, with the colours that it says it has. */
async function opened(bytes: Uint8Array, type: PictureType, size: Size): Promise<Sharp> {
  if (type === 'bmp') return openBmp(bytes, size);
  if (type === 'gif') return open(ended(bytes));
  const picture = open(bytes).autoOrient();
  const { depth, hasProfile, channels } = await picture.metadata();
  const deep = depth === 'ushort';
  if (deep && hasProfile) return openProfiled(picture, channels);
  const exponent = type === 'png' ? gammaOfPng(bytes) : null;
  return exponent ? openGamma(picture, deep, exponent) : picture;
}

/** Of 16 bits the library leaves grey as it is, and turns colours into ones of its own. */
async function openProfiled(picture: Sharp, channels: number): Promise<Sharp> {
  const heeded =
    channels < 3
      ? picture.toColourspace('b-w').keepIccProfile()
      : picture.toColourspace('rgb16').withIccProfile('srgb', { attach: false });
  return open(await heeded.png({ compressionLevel: 0 }).toBuffer());
}

const GIF_END = 0x3b;

/** Many writers leave off the end mark (GIF89a, §27), which the decoder insists on. */
const ended = (gif: Uint8Array): Uint8Array =>
  gif.at(-1) === GIF_END ? gif : Buffer.concat([gif, Buffer.from([GIF_END])]);

async function openBmp(bytes: Uint8Array, { width, height }: Size): Promise<Sharp> {
  // Its pixels are counted for the budget already.
  const file = new Uint8Array(await inSharedMemory(bytes));
  const { data, opaque } = await run('decodeBmp', { bytes: file }, { pixels: 0 });
  const raw = sharp(data, { raw: { width, height, channels: 4 } });
  const picture = opaque ? raw.removeAlpha() : raw;
  const { profile } = readBmpHeader(bytes);
  if (!profile) return picture;
  // Pixels without a file around them cannot bring a profile along.
  const png = await picture.png({ compressionLevel: 0 }).toBuffer();
  return open(withProfile(png, await promisify(deflate)(profile)));
}

/** The decoder leaves samples as they were written, whatever gamma the file says they have. */
async function openGamma(picture: Sharp, deep: boolean, exponent: number): Promise<Sharp> {
  const raw = deep
    ? picture.toColourspace('rgb16').raw({ depth: 'ushort' })
    : picture.toColourspace('srgb').raw();
  const { data, info } = await raw.toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const memory = await inSharedMemory(data);
  const samples = deep ? new Uint16Array(memory) : new Uint8Array(memory);
  const lit = await run('withExponent', { samples, channels, exponent }, { pixels: 0 });
  return sharp(lit, { raw: { width, height, channels } });
}

/** Decodes the whole picture and looks at its transparency. */
async function isOpaque(png: Uint8Array): Promise<boolean> {
  const alpha = await open(png).ensureAlpha().extractChannel(3).raw().toBuffer();
  return alpha.equals(Buffer.alloc(alpha.length, 255));
}

export const sha256 = (bytes: Uint8Array): string =>
  createHash('sha256').update(bytes).digest('hex');

/** The same of a file of any size, a piece at a time: the event loop is free between two. */
export async function sha256Of(bytes: Uint8Array): Promise<string> {
  const hash = createHash('sha256');
  for await (const piece of piecesOf(bytes)) hash.update(piece);
  return hash.digest('hex');
}
