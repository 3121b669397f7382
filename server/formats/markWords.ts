import type { ShotDocument } from '@/core/document/document';
import { kindOf, markBounds, type Mark } from '@/core/marks/registry';
import type { Shaper } from '@/core/drawing/shaper';
import { dropRest } from '@/core/document/dropRest';
import { onWhole, type Layout } from '@/core/finish/surround/layout';
import { layoutOfShot, wholeSize } from '@/core/paint/whole';

/** A line of what a mark says, where its painted letters stand about, in pixels of the picture. */
export interface SaidLine {
  text: string;
  x: number;
  /** The baseline. */
  y: number;
  size: number;
}

/** The lines of a mark; none where it is off or says nothing. */
export function linesOf(mark: Mark, shaper: Shaper): SaidLine[] {
  const text = kindOf(mark).words?.read(mark) ?? '';
  if (!text.trim() || mark.off) return [];
  const { x, y, height } = markBounds(mark, { shaper });
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  const step = height / (lines.length + 0.3);
  return lines.map((line, i) => ({
    text: line,
    x: Math.round(x),
    y: Math.round(y + step * (i + 0.9)),
    size: Math.round(step * 0.7),
  }));
}

/** What marks and caption of a shot say that can be seen, with the width of the whole they stand on. */
export function saidBy(shot: ShotDocument, shaper: Shaper): { lines: SaidLine[]; width: number } {
  const { document } = dropRest(shot, { shaper });
  const layout = layoutOfShot(shot, shaper);
  const lines = document.marks.flatMap((mark) => linesOf(mark, shaper));
  return {
    lines: layout
      ? [...lines.map((line) => ({ ...line, ...onWhole(layout, line) })), ...captionLines(layout)]
      : lines,
    width: wholeSize(shot, shaper).width,
  };
}

/** The lines of a caption, where they stand on the whole. */
export function captionLines({ caption }: Layout): SaidLine[] {
  if (!caption) return [];
  const { block, at } = caption;
  return block.words.lines.map(({ text, x, baseline, top }) => ({
    text,
    x: Math.round(at.x + block.padding + x),
    y: Math.round(at.y + block.padding + baseline),
    size: Math.max(1, Math.round((baseline - top) * 0.8)),
  }));
}
