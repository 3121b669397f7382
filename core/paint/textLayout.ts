import { startsRight } from './bidi';
import { runPath, type FontStyle, type ShapedRun, type Shaper } from './shaper';
import type { Surface } from './surface';

export interface TextLine {
  text: string;
  run: ShapedRun;
  /** Top of the line and its baseline, in pixels from the top of the block. */
  top: number;
  baseline: number;
  /** Where it begins, from the left of the block. */
  x: number;
}

export interface TextBlock {
  lines: readonly TextLine[];
  /** Width of the longest line and height of all lines, in pixels. */
  width: number;
  height: number;
}

export const LINE_SPACING = 1.3;

export const aligns = ['start', 'centre', 'end'] as const;
export type Align = (typeof aligns)[number];

export interface Setting {
  align?: Align;
  /** Height of a line, in ems. */
  lineSpacing?: number;
  /** Lines are aligned within this width instead of the longest line's. */
  within?: number;
}

/**
 * Breaks text at line ends, spaces and hyphens so that no line is wider than `width` pixels.
 * A word wider than that is broken between characters.
 */
export function layoutText(
  shaper: Shaper,
  text: string,
  style: FontStyle,
  width = Infinity,
  { align = 'start', lineSpacing = LINE_SPACING, within }: Setting = {},
): TextBlock {
  const { ascent, descent } = shaper.metrics(style);
  const height = style.size * lineSpacing;
  const measure = (part: string) => shaper.shape(part, style).advance;
  const texts = text.split(/\r\n|\r|\n/).flatMap((row) => breakRow(row, width, measure));
  const runs = texts.map((part) => shaper.shape(part, style));
  const longest = runs.reduce((most, run) => Math.max(most, run.advance), 0);
  const space = within ?? longest;
  const lines = texts.flatMap((part, i): TextLine[] => {
    const run = runs[i];
    if (!run) return [];
    const top = i * height;
    const baseline = top + (height - ascent - descent) / 2 + ascent;
    const free = space - run.advance;
    // A line that runs to the left starts at the right.
    const side = align === 'centre' ? 0.5 : (align === 'end') !== startsRight(part) ? 1 : 0;
    return [{ text: part, run, top, baseline, x: free * side }];
  });
  return { lines, width: longest, height: lines.length * height };
}

function breakRow(row: string, width: number, measure: (text: string) => number): string[] {
  if (measure(row) <= width) return [row];
  const lines: string[] = [];
  let line = '';
  for (const word of row.match(/\s*[^\s-]*-?/g)?.filter(Boolean) ?? []) {
    if (line === '' || measure(line + word) <= width) {
      line += word;
    } else {
      lines.push(line);
      line = word.trimStart();
    }
    while (measure(line) > width) {
      const head = longestHead(line, width, measure);
      if (head.length === line.length) break;
      lines.push(head);
      line = line.slice(head.length);
    }
  }
  return [...lines, line];
}

/** As many whole characters as fit, at least one; marks stay with what they belong to. */
function longestHead(word: string, width: number, measure: (text: string) => number): string {
  const characters = word.match(/\P{M}[\p{M}\u200d\ufe0f]*/gu) ?? [word];
  let head = characters[0] ?? word;
  for (const character of characters.slice(1)) {
    if (measure(head + character) > width) break;
    head += character;
  }
  return head;
}

/** Fills the lines of a block with its top left corner at x, y. */
export function fillText(
  surface: Surface,
  block: TextBlock,
  x: number,
  y: number,
  colour: string,
): void {
  surface.fillStyle = colour;
  for (const line of block.lines) {
    surface.beginPath();
    runPath(surface, line.run, x + line.x, y + line.baseline);
    surface.fill();
  }
}
