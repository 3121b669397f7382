import { expose } from 'comlink';
import type { ShotDocument } from '@/core/contracts/document';
import { paintShot } from '@/core/paint/painter';
import { bitmap, sheet } from './bitmap';
import { loadShaper } from './loadShaper';

/** A canvas in main memory: what it gives is the same on every machine, unlike a GPU's. */
function cpuCanvas(width: number, height: number) {
  const canvas = new OffscreenCanvas(width, height);
  const surface = canvas.getContext('2d', { willReadFrequently: true });
  if (!surface) throw new Error('This browser gives no canvas of that size.');
  return { canvas, surface };
}

async function paint(frame: ImageBitmap, document: ShotDocument) {
  const { crop } = document.view;
  const { canvas, surface } = cpuCanvas(crop.width, crop.height);
  const shaper = await loadShaper();
  paintShot(surface, document, { shaper, bitmap, sheet }, (to) => to.drawImage(frame, 0, 0));
  frame.close();
  return canvas;
}

const worker = {
  /** A whole frame as PNG, lossless. */
  async encode(frame: ImageBitmap): Promise<Blob> {
    const { canvas, surface } = cpuCanvas(frame.width, frame.height);
    surface.drawImage(frame, 0, 0);
    frame.close();
    return canvas.convertToBlob({ type: 'image/png' });
  },

  /** A shot as it leaves, as PNG. */
  async paintPng(frame: ImageBitmap, document: ShotDocument): Promise<Blob> {
    const canvas = await paint(frame, document);
    return canvas.convertToBlob({ type: 'image/png' });
  },
};

export type PictureWorker = typeof worker;

expose(worker);
