import { createWorker, PSM, type Worker } from 'tesseract.js';
import sharp from 'sharp';
import { readBlocks } from '@/core/recognition/blocks';
import type { Paragraph } from '@/core/recognition/words';

const data = 'node_modules/@tesseract.js-data/eng/4.0.0_best_int';

export const startRecogniser = (): Promise<Worker> =>
  createWorker('eng', 1, { langPath: data, gzip: true, cacheMethod: 'none' });

/** The words of a picture, as the page's own worker would find them. */
export async function recognise(
  worker: Worker,
  picture: Buffer,
  scale: number,
): Promise<Paragraph[]> {
  await worker.setParameters({ tessedit_pageseg_mode: PSM.SPARSE_TEXT });
  const { width } = await sharp(picture).metadata();
  const sized = await sharp(picture)
    .greyscale()
    .resize({ width: width * scale, kernel: 'cubic' })
    .png()
    .toBuffer();
  const { data: read } = await worker.recognize(sized, {}, { blocks: true });
  return readBlocks(read.blocks, scale);
}
