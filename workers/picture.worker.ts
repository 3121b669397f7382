import { expose, transfer } from 'comlink';
import type { ShotDocument } from '@/core/document/document';
import { limits } from '@/core/values/limits';
import type { HeldPicture } from '@/core/values/heldPicture';
import { toBase64 } from '@/core/raster/base64';
import type { Adjust } from '@/core/finish/adjust/adjust';
import { adjustPixels } from '@/core/finish/adjust/pixels';
import type { Turn } from '@/core/document/viewSchema';
import { isTurned, turnedPixels } from '@/core/document/turn';
import { contrastsBelow } from '@/core/paint/contrasts';
import { paintShot } from '@/core/paint/painter';
import { sheetView, withRoom } from '@/core/paint/room';
import { wholeSize } from '@/core/paint/whole';
import type { Surface } from '@/core/drawing/surface';
import { bitmap, sheet } from './bitmap';
import { loadShaper } from './loadShaper';

/** A canvas in main memory: what it gives is the same on every machine, unlike a GPU's. */
function cpuCanvas(width: number, height: number) {
  const canvas = new OffscreenCanvas(width, height);
  const surface = canvas.getContext('2d', { willReadFrequently: true });
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  return { canvas, surface };
}

/** A frame as a turn shows it. */
function turned(frame: ImageBitmap, turn: Turn) {
  const { surface } = cpuCanvas(frame.width, frame.height);
  surface.drawImage(frame, 0, 0);
  const { data } = surface.getImageData(0, 0, frame.width, frame.height);
  const { width, height } = frame;
  const pixels = turnedPixels({ data, width, height }, turn, isOpaque(data));
  const made = cpuCanvas(pixels.width, pixels.height);
  made.surface.putImageData(new ImageData(pixels.data, pixels.width, pixels.height), 0, 0);
  return made;
}

function isOpaque(rgba: Uint8ClampedArray): boolean {
  for (let i = 3; i < rgba.length; i += 4) if (rgba[i] !== 255) return false;
  return true;
}

async function paint(frame: ImageBitmap, document: ShotDocument) {
  const shaper = await loadShaper();
  const { width, height } = wholeSize(document, shaper);
  const { canvas, surface } = cpuCanvas(width, height);
  const { turn } = document.view;
  const picture = isTurned(turn) ? turned(frame, turn).canvas : frame;
  paintShot(surface, document, { shaper, bitmap, sheet }, (to) => to.drawImage(picture, 0, 0));
  frame.close();
  return canvas;
}

/** A piece larger than that is no longer something lying on a picture. */
const MOST_PIECE_PIXELS = 16_000_000;

/** The picture that contrasts are asked of, kept while its shot is open; and how it is drawn. */
let held: { key: number; picture: ImageBitmap; draw: (to: Surface) => void } | null = null;

const worker = {
  /** Keeps a picture for `contrasts`, in place of the one before. */
  hold(key: number, picture: ImageBitmap): void {
    held?.picture.close();
    held = { key, picture, draw: (to) => to.drawImage(picture, 0, 0) };
  },

  letGo(): void {
    held?.picture.close();
    held = null;
  },

  /** The contrasts of some marks of a shot with what is below them; null where another picture is held. */
  async contrasts(
    key: number,
    { marks, view, pictures }: ShotDocument,
    ids: readonly string[],
  ): Promise<Map<string, number | null> | null> {
    const tools = { shaper: await loadShaper(), bitmap, sheet };
    if (held?.key !== key) return null;
    const drawFrame = withRoom(view, held.draw);
    const from = { marks, view: sheetView(view), pictures, drawFrame, tools };
    return contrastsBelow(from, new Set(ids));
  },

  /** A whole frame as PNG, lossless. */
  async encode(frame: ImageBitmap): Promise<Blob> {
    const { canvas, surface } = cpuCanvas(frame.width, frame.height);
    surface.drawImage(frame, 0, 0);
    frame.close();
    return canvas.convertToBlob({ type: 'image/png' });
  },

  /** A frame as a turn shows it. */
  turn(frame: ImageBitmap, turn: Turn): ImageBitmap {
    const { canvas } = turned(frame, turn);
    frame.close();
    const bitmap = canvas.transferToImageBitmap();
    return transfer(bitmap, [bitmap]);
  },

  /** A picture as it is adjusted, all of it known. */
  adjust(picture: ImageBitmap, adjust: Adjust): ImageBitmap {
    const { width, height } = picture;
    const { canvas, surface } = cpuCanvas(width, height);
    surface.drawImage(picture, 0, 0);
    picture.close();
    const pixels = surface.getImageData(0, 0, width, height);
    adjustPixels(pixels, adjust);
    surface.putImageData(pixels, 0, 0);
    const bitmap = canvas.transferToImageBitmap();
    return transfer(bitmap, [bitmap]);
  },

  /** A picture as PNG within the limits of what a document holds; smaller where it must be. */
  async pack(picture: ImageBitmap): Promise<{ held: HeldPicture; shrunk: boolean }> {
    let scale = Math.min(1, Math.sqrt(MOST_PIECE_PIXELS / (picture.width * picture.height)));
    for (;;) {
      const width = Math.max(1, Math.round(picture.width * scale));
      const height = Math.max(1, Math.round(picture.height * scale));
      const { canvas, surface } = cpuCanvas(width, height);
      surface.imageSmoothingQuality = 'high';
      surface.drawImage(picture, 0, 0, width, height);
      const bytes = new Uint8Array(
        await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer(),
      );
      if (bytes.length <= limits.heldPictureBytes) {
        picture.close();
        return { held: { width, height, png: toBase64(bytes) }, shrunk: scale < 1 };
      }
      scale *= Math.min(0.9, Math.sqrt(limits.heldPictureBytes / bytes.length));
    }
  },

  /** A shot as it leaves, to be looked at so small. */
  async paintView(frame: ImageBitmap, document: ShotDocument, scale: number): Promise<ImageBitmap> {
    const canvas = await paint(frame, document);
    const bitmap = await createImageBitmap(canvas, {
      resizeWidth: Math.max(1, Math.round(canvas.width * scale)),
      resizeHeight: Math.max(1, Math.round(canvas.height * scale)),
      resizeQuality: 'high',
    });
    return transfer(bitmap, [bitmap]);
  },

  /** A shot as it leaves, as PNG. */
  async paintPng(frame: ImageBitmap, document: ShotDocument): Promise<Blob> {
    const canvas = await paint(frame, document);
    return canvas.convertToBlob({ type: 'image/png' });
  },
};

export type PictureWorker = typeof worker;

expose(worker);
