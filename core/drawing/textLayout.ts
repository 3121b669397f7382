import LineBreaker from 'linebreak';
import { startsRight } from './bidi';
import type { Align } from './names';
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

export interface Setting {
  align?: Align;
  /** Height of a line, in ems. */
  lineSpacing?: number;
  /** Lines are aligned within this width instead of the longest line's. */
  within?: number;
}

/**
 * Breaks text at line ends and where lines may break (Unicode Standard Annex 14), so that no line
 * is wider than `width` pixels. A word wider than that is broken between characters.
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
  const texts = text.split(/\r\n|\r|\n/).flatMap((row) => breakRow(row, width, shaper, style));
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

/** A row that is to be broken, measured once. */
interface Row {
  text: string;
  /** How far along it each of its characters leads. */
  edges: Float64Array;
  /** Where it may be broken, its end last. */
  breaks: readonly number[];
}

/** Letters that join are cut into other shapes; a few times that may make a line too wide. */
const MOST_ATTEMPTS = 5;

/** Each run is shaped once to break the row, and each line to be seen. */
function breakRow(text: string, width: number, shaper: Shaper, style: FontStyle): string[] {
  if (width === Infinity || text === '') return [text];
  const edges = shaper.edges(text, style);
  if ((edges[text.length] ?? 0) <= width) return [text];
  const row: Row = { text, edges, breaks: breaksOf(text) };
  const lines: string[] = [];
  let start = 0;
  let next = 0;
  while (start < text.length) {
    let taken = fit(row, start, next, width);
    let room = width;
    // Cut off from its neighbours a line may be a little wider than it was within the row.
    for (let attempt = 0; attempt < MOST_ATTEMPTS; attempt += 1) {
      const over = shaper.shape(lineOf(text, start, taken.end), style).advance - width;
      if (over <= 0) break;
      room -= over;
      taken = fit(row, start, next, room);
    }
    lines.push(taken.end === text.length ? text.slice(start) : lineOf(text, start, taken.end));
    start = taken.end;
    next = taken.next;
  }
  return lines;
}

const lineOf = (text: string, from: number, to: number): string => text.slice(from, to).trimEnd();

function breaksOf(text: string): number[] {
  const breaker = new LineBreaker(text);
  const all: number[] = [];
  for (let at = breaker.nextBreak(); at; at = breaker.nextBreak()) all.push(at.position);
  if (all.at(-1) !== text.length) all.push(text.length);
  return all;
}

/** As much from `start` as fits: up to a break, or within a word where that alone is too wide. */
function fit(
  { text, edges, breaks }: Row,
  start: number,
  firstBreak: number,
  width: number,
): { end: number; next: number } {
  const from = edges[start] ?? 0;
  const fits = (to: number) => (edges[to] ?? 0) - from <= width;
  let next = firstBreak;
  let end = start;
  for (; next < breaks.length; next += 1) {
    const to = breaks[next] ?? text.length;
    // Spaces at the end of a line take no room.
    let seen = to;
    while (seen > start && /\s/.test(text[seen - 1] ?? '')) seen -= 1;
    if (!fits(seen)) break;
    end = to;
  }
  if (end > start) return { end, next };
  return { end: charactersThatFit(text, start, breaks[next] ?? text.length, fits), next };
}

/** The end of as many whole characters as fit, of at least one; marks stay with what they belong to. */
function charactersThatFit(
  text: string,
  start: number,
  limit: number,
  fits: (to: number) => boolean,
): number {
  const character = /\P{M}[\p{M}\u200d\ufe0f]*/uy;
  let end = start;
  while (end < limit) {
    character.lastIndex = end;
    const length = character.exec(text)?.[0].length ?? 1;
    if (end > start && !fits(end + length)) break;
    end += length;
  }
  return end;
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
