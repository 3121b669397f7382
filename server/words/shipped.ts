import { join } from 'node:path';
import { readBlocks } from '@/core/recognition/blocks';
import type { Paragraph } from '@/core/recognition/words';
import type { Readable } from './recognise';

const MOST_TIME = 300_000;

const data = (): string =>
  join(process.cwd(), 'node_modules', '@tesseract.js-data', 'eng', '4.0.0_best_int');

/** The recogniser that ships with the app, in a thread of its own that ends with the reading. */
export async function shippedRecognise(
  { picture, scale }: Readable,
  signal: AbortSignal,
): Promise<Paragraph[]> {
  const { createWorker } = await import('tesseract.js');
  const worker = await createWorker('eng', 1, {
    langPath: data(),
    gzip: true,
    cacheMethod: 'none',
    errorHandler: () => undefined,
  });
  const limit = AbortSignal.any([signal, AbortSignal.timeout(MOST_TIME)]);
  const ended = new Promise<never>((_, reject) => {
    const end = () => reject(new Error('Reading this picture was stopped, or took too long.'));
    if (limit.aborted) end();
    limit.addEventListener('abort', end, { once: true });
  });
  try {
    const { data: read } = await Promise.race([
      worker.recognize(Buffer.from(picture), {}, { blocks: true }),
      ended,
    ]);
    return readBlocks(read.blocks, scale);
  } finally {
    await worker.terminate();
  }
}
