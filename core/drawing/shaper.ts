import type { Face } from './names';
import type { Surface } from './surface';

export interface FontStyle {
  face: Face;
  /** 400 or 700; the nearest shipped weight is taken. */
  weight: 400 | 700;
  /** Pixels per em. */
  size: number;
}

/** One outline command in font units, y upward, as HarfBuzz gives it. */
export type OutlineCommand =
  | readonly ['M' | 'L', number, number]
  | readonly ['Q', number, number, number, number]
  | readonly ['C', number, number, number, number, number, number]
  | readonly ['Z'];

/** A glyph placed in pixels relative to the start of the run's baseline, y downward. */
export interface PlacedGlyph {
  x: number;
  y: number;
  /** Pixels per font unit. */
  scale: number;
  outline: readonly OutlineCommand[];
}

export interface ShapedRun {
  glyphs: readonly PlacedGlyph[];
  /** Distance to the start of what follows, in pixels. */
  advance: number;
}

/** Text to glyph outlines: the same in the browser, in workers and on the server. */
export interface Shaper {
  shape(text: string, style: FontStyle): ShapedRun;
  /**
   * How far along a text its characters lead, in pixels: `text.length + 1` values from 0 up. Units
   * of one cluster (UTF-16 pairs, marks, ligatures) lead on together, at its first. Where the
   * text is cut, shapes and kerning may differ a little from these.
   */
  edges(text: string, style: FontStyle): Float64Array;
  /** The font file that draws each piece of a text, in the order in which it is written. */
  pieces(text: string, style: Pick<FontStyle, 'face' | 'weight'>): { file: string; text: string }[];
  /** Distances from the baseline, in pixels, both positive. */
  metrics(style: FontStyle): { ascent: number; descent: number };
}

/** Adds the outlines of a run to the surface's path, its baseline starting at x, y. */
export function runPath(surface: Surface, run: ShapedRun, x: number, y: number): void {
  for (const glyph of run.glyphs) {
    const px = (v: number) => x + glyph.x + v * glyph.scale;
    const py = (v: number) => y + glyph.y - v * glyph.scale;
    for (const c of glyph.outline) {
      switch (c[0]) {
        case 'M':
          surface.moveTo(px(c[1]), py(c[2]));
          break;
        case 'L':
          surface.lineTo(px(c[1]), py(c[2]));
          break;
        case 'Q':
          surface.quadraticCurveTo(px(c[1]), py(c[2]), px(c[3]), py(c[4]));
          break;
        case 'C':
          surface.bezierCurveTo(px(c[1]), py(c[2]), px(c[3]), py(c[4]), px(c[5]), py(c[6]));
          break;
        case 'Z':
          surface.closePath();
      }
    }
  }
}
