import type { Paragraph, Word } from '@/core/recognition/words';

/** Kind of row that holds a word; blocks, paragraphs and lines have rows of their own. */
const WORD = '5';
const COLUMNS = 12;

/**
 * The table that Tesseract writes (`tesseract … tsv`: level, page, block, paragraph, line, word,
 * left, top, width, height, confidence, text), in pixels of the picture.
 * @param scale how much larger than the picture it was read
 */
export function readTsv(table: string, scale: number): Paragraph[] {
  const paragraphs = new Map<string, Map<string, Word[]>>();
  for (const row of table.split('\n')) {
    const cells = row.split('\t');
    if (cells.length < COLUMNS || cells[0] !== WORD) continue;
    const text = cells
      .slice(COLUMNS - 1)
      .join(' ')
      .trim();
    const [x, y, width, height] = cells.slice(6, 10).map((n) => Number(n) / scale);
    if (!text || ![x, y, width, height].every(Number.isFinite)) continue;
    const paragraph = cells.slice(1, 4).join(' ');
    const lines = paragraphs.get(paragraph) ?? new Map<string, Word[]>();
    paragraphs.set(paragraph, lines);
    const line = lines.get(cells[4] ?? '') ?? [];
    lines.set(cells[4] ?? '', line);
    line.push({ text, box: { x: x ?? 0, y: y ?? 0, width: width ?? 0, height: height ?? 0 } });
  }
  return [...paragraphs.values()].map((lines) => [...lines.values()]);
}
