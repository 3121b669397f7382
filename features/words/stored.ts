import type { ShotWords } from '@/core/contracts/search';
import type { Paragraph, Word } from '@/core/recognition/words';
import type { Point } from '@/core/geometry/point';
import { api } from '../api/client';

/**
 * What the server has read of a shot in the background, moved to the coordinates of its marks; null
 * where that is not of this revision, or cannot be had.
 * @param corner the view's top left corner
 */
export async function storedParagraphs(
  id: string,
  revision: number | null,
  corner: Point,
): Promise<Paragraph[] | null> {
  if (revision === null) return null;
  const read = await api.words(id).catch(() => null);
  if (!read || read.state !== 'read' || read.revision !== revision) return null;
  return inParagraphs(read.words, corner);
}

function inParagraphs(words: ShotWords['words'], corner: Point): Paragraph[] {
  const paragraphs: Word[][][] = [];
  let [lastLine, lastParagraph] = [-1, -1];
  for (const { text, box, line, paragraph } of words) {
    if (paragraph !== lastParagraph) paragraphs.push([]);
    if (line !== lastLine || paragraph !== lastParagraph) paragraphs.at(-1)?.push([]);
    [lastLine, lastParagraph] = [line, paragraph];
    const moved = { ...box, x: box.x + corner.x, y: box.y + corner.y };
    paragraphs.at(-1)?.at(-1)?.push({ text, box: moved });
  }
  return paragraphs;
}
