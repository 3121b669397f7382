import { smallestText, type TextRun } from '@/core/screen/textHeights';
import { paintedPixels } from '../paint/picture';

/** The smallest words of a shot at its own size; null where none are found. @throws Fault 404 */
export async function smallestWords(id: string): Promise<{ smallest: TextRun | null }> {
  const { data, width, height } = await paintedPixels(id);
  const own = data.buffer instanceof ArrayBuffer ? data : new Uint8ClampedArray(data);
  return {
    smallest: smallestText({ data: own as Uint8ClampedArray<ArrayBuffer>, width, height }),
  };
}
