import type { Size } from '@/core/geometry/size';
import sharp, { type Sharp } from 'sharp';
import {
  firstFacts,
  type FactsRule,
  type FormatName,
  type FormatOptions,
  type SizeWish,
} from '@/core/contracts/format';
import { untouched } from '@/core/document/view';
import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { factsOf, SCREEN_DENSITY } from '@/core/keep/facts';
import { fitSize, isAsItIs, sizeProblem, type Fitted } from '@/core/keep/fitSize';
import type { Shaper } from '@/core/drawing/shaper';
import { leavesOpaque, wholeSize } from '@/core/paint/whole';
import { fit } from '../http/body';
import { Fault } from '../base/fault';
import { decoded, unpainted, type Pixels } from '../paint/flatten';
import { serverShaper } from '../paint/shaper';
import { paintedPixels } from '../pictures/painted';
import type { Paintable } from '../shots/rows';
import { inEncodingQueue } from '../base/encodingQueue';
import { holding, run } from '../pool/pool';
import { formats } from '../formats';
import { asItLeaves, type Without } from './asItLeaves';
import { optionsOf, type Format, type Source, type Wish } from '../formats/contract';
import { barePng, plainPng } from '../formats/png';
import { fromPixels } from '../formats/raw';

export interface EncodeWish extends SizeWish {
  format: FormatName;
  quality?: number | undefined;
  options?: FormatOptions | undefined;
  maxBytes?: number | undefined;
  background?: string | undefined;
  facts?: FactsRule | undefined;
  look?: string | undefined;
  first?: number | undefined;
  without?: Without | undefined;
}

export interface Encoded {
  bytes: Uint8Array;
  width: number;
  height: number;
  /** Its size where none is wished for. */
  own: Size;
  /** What it was written with, which “at most so many bytes” may have chosen. */
  quality: number;
  /** No pixel was transparent, whether or not the format could have held it. */
  opaque: boolean;
}

type Made = Omit<Encoded, 'own'>;

const WHITE = '#FFFFFF';
const FIRST_QUALITY = 85;

/**
 * The picture in another size, scaled once from full resolution. Scaling is done on the values as
 * they are stored, as sharp does by default; docs/decisions.md says why not in linear light.
 */
export async function sizedPixels(
  pixels: Pixels,
  wish: SizeWish,
  background = WHITE,
): Promise<Pixels> {
  const fitted = fittedTo(pixels, wish);
  if (isAsItIs(pixels, fitted)) return pixels;
  return scaled(pixels, fitted, background);
}

function fittedTo(size: Size, wish: SizeWish): Fitted {
  const fitted = fitSize(size, wish);
  const problem = sizeProblem(fitted);
  if (problem) throw new Fault(400, 'too-many-pixels', problem);
  return fitted;
}

async function scaled(pixels: Pixels, fitted: Fitted, background: string): Promise<Pixels> {
  const { source, scaled: size, sheet, at } = fitted;
  const part = fromPixels(pixels)
    .extract({ left: source.x, top: source.y, width: source.width, height: source.height })
    .resize({ ...size, fit: 'fill', kernel: 'lanczos3' });
  const padded = sheet.width > size.width || sheet.height > size.height;
  const { data, info } = await part.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const made = { width: info.width, height: info.height };
  const whole = padded
    ? await sharp(data, { raw: { ...made, channels: 4 } })
        .extend({
          left: at.x,
          top: at.y,
          right: sheet.width - size.width - at.x,
          bottom: sheet.height - size.height - at.y,
          background,
        })
        .raw()
        .toBuffer()
    : data;
  return {
    data: new Uint8ClampedArray(whole.buffer, whole.byteOffset, whole.length),
    width: sheet.width,
    height: sheet.height,
    opaque: pixels.opaque,
  };
}

/** A shot as it leaves, as PNG with nothing beside its pixels. @throws Fault 400 */
export async function plainPicture(
  stored: Paintable,
  { facts, ...wish }: SizeWish & { facts?: FactsRule } = {},
): Promise<{ png: Buffer; width: number; height: number }> {
  const shot = await asItLeaves(stored, { facts });
  const image = asItIs(shot, wish);
  const { crop } = shot.document.view;
  if (image) {
    const png = await holding(areaOf(crop), () => barePng(image));
    return { png, width: crop.width, height: crop.height };
  }
  const pixels = await sizedPixels(await paintedPixels(shot), wish);
  return { png: await plainPng(pixels), width: pixels.width, height: pixels.height };
}

/** A finished PNG as another format, in its own size and with nothing beside its pixels. */
export async function pngAs(name: FormatName, png: Uint8Array): Promise<Uint8Array> {
  const image = sharp(png, { limitInputPixels: false });
  const { hasAlpha, width, height } = await image.metadata();
  const opaque = !hasAlpha;
  const pixels = { ...(await holding(width * height, () => decoded(image))), opaque };
  const format = formats[name];
  const none = { title: '', description: '', origin: '', takenAt: '', software: '' };
  return written(
    format,
    { pixels, shot: { frame: png, opaque, document: untouched(pixels) } },
    {
      quality: FIRST_QUALITY,
      options: fit({}, optionsOf(format)),
      background: WHITE,
      facts: { ...none, density: SCREEN_DENSITY },
    },
  );
}

/** A shot as a file. @throws Fault 400 for options the format does not have, 409 too large */
export const encodeShot = (shot: Paintable, wish: EncodeWish): Promise<Encoded> =>
  inEncodingQueue(() => encodeNow(shot, wish));

async function encodeNow(stored: Paintable, wish: EncodeWish): Promise<Encoded> {
  const shot = await asItLeaves(stored, wish);
  const own = wholeSize(shot.document, await serverShaper());
  const format = formats[wish.format];
  const made: Wish = {
    quality: wish.quality ?? FIRST_QUALITY,
    options: fit(wish.options ?? {}, optionsOf(format)),
    background: wish.background ?? WHITE,
    facts: factsOf(
      // The name may say where it is from, which only the rule lets out.
      {
        ...shot,
        title: wish.facts?.origin ? shot.title : leavingTitle(shot),
        description: wish.facts?.origin ? shot.document.description : leavingDescription(shot),
      },
      wish.facts ?? firstFacts,
      wish.density ?? SCREEN_DENSITY,
    ),
  };
  const whole = await straight(shot, wish, made);
  if (whole) return { ...whole, own };
  const looksAtShot = format.thread?.(made.options) === 'shot' && wish.maxBytes === undefined;
  const pixels = looksAtShot
    ? sizeAlone(shot, own, wish, await serverShaper())
    : await sizedPixels(await paintedPixels(shot), wish, made.background);
  const bare = { frame: shot.frame, opaque: shot.opaque, document: shot.document };
  const source = { pixels, shot: bare };
  if (wish.maxBytes !== undefined) {
    return { ...(await withinBytes(wish, source, made, wish.maxBytes)), own };
  }
  const bytes = await written(format, source, made);
  const { width, height, opaque } = pixels;
  return { bytes, width, height, own, opaque, quality: made.quality };
}

/** For a format that makes its picture of the shot itself: the size it is to have, nothing painted. */
function sizeAlone({ document, opaque }: Paintable, own: Size, wish: SizeWish, shaper: Shaper) {
  const { sheet } = fittedTo(own, wish);
  const isOpaque = leavesOpaque(document, opaque, shaper);
  return { ...sheet, data: new Uint8ClampedArray(), opaque: isOpaque };
}

/** The picture of a shot on which nothing lies, in its own size; else null. */
function asItIs(shot: Paintable, wish: SizeWish): Sharp | null {
  const { crop } = shot.document.view;
  return isAsItIs(crop, fitSize(crop, wish)) ? unpainted(shot) : null;
}

/** Such a shot written from its frame without painting; else null. */
async function straight(shot: Paintable, wish: EncodeWish, made: Wish): Promise<Made | null> {
  const { crop } = shot.document.view;
  const { write } = formats[wish.format];
  const image = asItIs(shot, wish);
  if (!image || !write || wish.maxBytes !== undefined) return null;
  const bytes = await holding(areaOf(crop), () => Promise.resolve(write(image, made)));
  const { width, height } = crop;
  return bytes && { bytes, width, height, opaque: true, quality: made.quality };
}

/** Writes a file: in a thread where the format computes by itself, else in those of the library. */
function written(format: Format, { pixels, shot }: Source, wish: Wish): Promise<Uint8Array> {
  const handed = format.thread?.(wish.options);
  if (!handed) return format.encode({ pixels, shot }, wish);
  // What it does not look at is not copied for it.
  const source =
    handed === 'shot'
      ? { shot, pixels: { ...pixels, data: new Uint8ClampedArray() } }
      : { pixels, shot: { ...shot, frame: new Uint8Array() } };
  return run('encode', { format: format.name, source, wish }, { pixels: 2 * areaOf(pixels) });
}

const areaOf = ({ width, height }: Size): number => width * height;

const LEAST_QUALITY = 20;
/** With the wished and the least quality, no more than eight encodings. */
const TRIES = 6;

/** The best quality, then the largest size, whose file has at most so many bytes. */
async function withinBytes(
  { format: name }: EncodeWish,
  source: Source,
  wish: Wish,
  most: number,
): Promise<Made> {
  const format = formats[name];
  const at = async (pixels: Pixels, quality: number): Promise<Made> => ({
    bytes: await written(format, { ...source, pixels }, { ...wish, quality }),
    width: pixels.width,
    height: pixels.height,
    opaque: pixels.opaque,
    quality,
  });
  const first = await at(source.pixels, wish.quality);
  if (first.bytes.length <= most) return first;
  const quality = format.quality ? Math.min(LEAST_QUALITY, wish.quality) : wish.quality;
  if (format.quality && quality < wish.quality) {
    const least = await at(source.pixels, quality);
    if (least.bytes.length <= most) {
      return bestQuality((q) => at(source.pixels, q), least, wish.quality, most);
    }
  }
  const smaller = await largestSize(source.pixels, (pixels) => at(pixels, quality), most);
  if (smaller) return smaller;
  throw new Fault(
    409,
    'cannot-be-that-small',
    `Even at its smallest this picture has more than ${most} bytes as ${format.label}. Allow more, or choose another format.`,
  );
}

/** By halving between a quality that is known to fit and the wished one. */
async function bestQuality(
  at: (quality: number) => Promise<Made>,
  least: Made,
  wished: number,
  most: number,
): Promise<Made> {
  let [low, high] = [least.quality + 1, wished - 1];
  let best = least;
  for (let i = 0; i < TRIES && low <= high; i += 1) {
    const quality = Math.floor((low + high) / 2);
    const tried = await at(quality);
    if (tried.bytes.length <= most) {
      best = tried;
      low = quality + 1;
    } else high = quality - 1;
  }
  return best;
}

/** Bytes go roughly with the area, so each try says where the next should be. */
async function largestSize(
  whole: Pixels,
  at: (pixels: Pixels) => Promise<Made>,
  most: number,
): Promise<Made | null> {
  let [low, high] = [0, 1];
  let by = 0.5;
  let best: Made | null = null;
  for (let i = 0; i < TRIES; i += 1) {
    const pixels = await sizedPixels(whole, { percent: Math.max(1, by * 100) });
    const tried = await at(pixels);
    const share = tried.bytes.length / most;
    if (share <= 1) {
      best = tried;
      low = by;
      if (share > 0.93) break;
    } else high = by;
    const guess = by * Math.sqrt(0.97 / share);
    by = guess > low && guess < high ? guess : (low + high) / 2;
  }
  return best;
}
