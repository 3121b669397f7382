import type { Worker } from 'tesseract.js';
import { readBlocks } from '@/core/recognition/blocks';
import type { Paragraph } from '@/core/recognition/words';

/** Larger than this a picture is enlarged less than asked: reading it would take minutes. */
const MOST_PIXELS = 24_000_000;

/** How lines are looked for: as they lie on a page, or wherever there are any. */
export type Layout = 'page' | 'anywhere';
// The recogniser's own page segmentation modes.
const modes = { page: 'AUTO', anywhere: 'SPARSE_TEXT' } as const;

/** Thrown when a person stopped the reading. */
export class Stopped extends Error {}

/**
 * Text recognition in a worker, with data that ships with the app: nothing leaves the computer.
 * A recogniser reads until it is ended; ending it stops a reading that goes on.
 */
export class Recogniser {
  private worker: Promise<Worker> | null = null;
  private ended = false;
  private onProgress: (share: number) => void = () => undefined;
  private stop: (error: Error) => void = () => undefined;

  private start(): Promise<Worker> {
    const base = `${location.origin}/api/recognition`;
    this.worker ??= import('tesseract.js').then(({ createWorker }) =>
      createWorker('eng', 1, {
        workerPath: `${base}/worker.min.js`,
        corePath: base,
        langPath: base,
        gzip: true,
        cacheMethod: 'none',
        workerBlobURL: false,
        logger: ({ status, progress }) => {
          if (status === 'recognizing text') this.onProgress(progress);
        },
      }),
    );
    return this.worker;
  }

  /**
   * The words of a picture, in its pixels.
   * @param scale how much it is enlarged before it is read
   * @throws Stopped when it was ended meanwhile
   */
  async read(
    picture: ImageBitmap,
    scale: number,
    layout: Layout,
    onProgress: (share: number) => void = () => undefined,
  ): Promise<Paragraph[]> {
    const work = this.reading(picture, scale, layout, onProgress);
    const stopped = new Promise<never>((_, reject) => (this.stop = reject));
    return Promise.race([work, stopped]);
  }

  private async reading(
    picture: ImageBitmap,
    wanted: number,
    layout: Layout,
    onProgress: (share: number) => void,
  ): Promise<Paragraph[]> {
    const worker = await this.start();
    if (this.ended) throw new Stopped();
    this.onProgress = onProgress;
    const { width, height } = picture;
    const scale = Math.min(wanted, Math.max(1, Math.sqrt(MOST_PIXELS / (width * height))));
    const canvas = new OffscreenCanvas(Math.round(width * scale), Math.round(height * scale));
    const surface = canvas.getContext('2d');
    if (!surface) throw new Error('This browser gives no canvas of that size.');
    surface.imageSmoothingQuality = 'high';
    surface.filter = 'grayscale(1)';
    surface.drawImage(picture, 0, 0, canvas.width, canvas.height);
    const blob = await canvas.convertToBlob({ type: 'image/png' });
    const { PSM } = await import('tesseract.js');
    await worker.setParameters({ tessedit_pageseg_mode: PSM[modes[layout]] });
    const { data } = await worker.recognize(blob, {}, { blocks: true });
    return readBlocks(data.blocks, scale);
  }

  end(): void {
    this.ended = true;
    this.stop(new Stopped());
    void this.worker?.then((worker) => worker.terminate());
  }
}
