import type { TextRun } from '@/core/screen/textHeights';
import { paintedPixels } from '../pictures/painted';
import { getPaintable } from '../shots/rows';
import { asItLeaves } from './asItLeaves';
import { run } from '../pool/pool';

/** The smallest words of a shot at its own size; null where none are found. @throws Fault 404 */
export async function smallestWords(id: string): Promise<{ smallest: TextRun | null }> {
  const { data, width, height } = await paintedPixels(await asItLeaves(await getPaintable(id)));
  const picture = { data, width, height };
  return { smallest: await run('smallestWords', picture, { pixels: width * height }) };
}
