import { join } from 'node:path';
import { readBlocks } from '@/core/recognition/blocks';
import type { Paragraph } from '@/core/recognition/words';
import { runReader, type Readable } from './reader';

/** The recogniser that ships with the app. @throws Error in words as `runReader` */
export async function shippedRecognise(
  { picture, scale }: Readable,
  signal: AbortSignal,
): Promise<Paragraph[]> {
  const program = join(process.cwd(), 'bin', 'readWords.mjs');
  const answer: unknown = JSON.parse(await runReader(process.execPath, [program], picture, signal));
  return readBlocks(answer, scale);
}
