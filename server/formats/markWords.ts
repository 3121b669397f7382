import type { ShotDocument } from '@/core/document/document';
import { kindOf, markBounds, type Mark } from '@/core/marks/registry';
import type { Shaper } from '@/core/drawing/shaper';
import { dropRest } from '@/core/document/dropRest';

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

/** What all marks of a shot say that can be seen, with the width of the picture they stand on. */
export function saidBy(shot: ShotDocument, shaper: Shaper): { lines: SaidLine[]; width: number } {
  const { document } = dropRest(shot, { shaper });
  return {
    lines: document.marks.flatMap((mark) => linesOf(mark, shaper)),
    width: document.view.crop.width,
  };
}
