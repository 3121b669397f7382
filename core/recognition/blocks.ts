import { z } from 'zod';
import type { Paragraph } from './words';

const box = z.object({ x0: z.number(), y0: z.number(), x1: z.number(), y1: z.number() });

/** What the recogniser answers: blocks of paragraphs of lines of words, with boxes in its pixels. */
const blocksSchema = z
  .array(
    z.object({
      paragraphs: z.array(
        z.object({
          lines: z.array(z.object({ words: z.array(z.object({ text: z.string(), bbox: box })) })),
        }),
      ),
    }),
  )
  .nullish();

/**
 * Recognised words in pixels of the picture.
 * @param scale how much larger than the picture the recogniser saw it
 * @param at the place of what it saw in the picture
 */
export function readBlocks(answer: unknown, scale: number, at = { x: 0, y: 0 }): Paragraph[] {
  const blocks = blocksSchema.parse(answer) ?? [];
  return blocks.flatMap((block) =>
    block.paragraphs.map((paragraph) =>
      paragraph.lines.map((line) =>
        line.words
          .filter((word) => word.text.trim() !== '')
          .map(({ text, bbox }) => ({
            text,
            box: {
              x: at.x + bbox.x0 / scale,
              y: at.y + bbox.y0 / scale,
              width: (bbox.x1 - bbox.x0) / scale,
              height: (bbox.y1 - bbox.y0) / scale,
            },
          })),
      ),
    ),
  );
}
