import type { z } from 'zod';
import type { Mapping } from '../geometry/mapping';
import type { Point } from '../geometry/point';
import type { Rect } from '../geometry/rect';
import type { Shaper } from '../drawing/shaper';
import type { RgbaPixels } from '../raster/pixels';
import type { Surface } from '../drawing/surface';
import type { Outline } from '../raster/mask';
import type { Stretch } from '../values/stretch';
import type { Look } from './hide/looks';
import type { WordsField } from './shared/wordsField';
import type { Style } from './style';

/** What a mark needs from outside to measure and paint itself. */
export interface MarkTools {
  shaper: Shaper;
}

export interface PaintTools extends MarkTools {
  /** Pixels as something the surface can draw. */
  bitmap: (pixels: RgbaPixels) => unknown;
  /** An empty canvas in main memory, whose pixels can be read. */
  sheet: (width: number, height: number) => Sheet;
  /** How it is looked at: device pixels for one of the frame, and what is in sight; 1 and all where absent. */
  sight?: { scale: number; seen: Rect };
  /** Painted while it changes under a hand: what is quicker may differ a little. */
  live?: boolean;
}

export interface Sheet {
  surface: Surface;
  /** Its pixels, or those of a part of it: whole pixels within it. */
  read: (part?: Rect) => RgbaPixels;
  /** It as something another surface can draw. */
  image: unknown;
}

/** Pixels to be drawn with their top left corner at a whole place of the frame. */
export interface Patch {
  x: number;
  y: number;
  pixels: RgbaPixels;
}

/** What a Hide mark hides, and what it shall look like. */
export interface HideArea {
  outline: Outline;
  look: Look;
}

/** What a mark may know of the picture it is painted on. */
export interface Scene {
  /** The part of the frame that is shown, in frame pixels. */
  view: Rect;
  /** Draws the filling of a Hide mark, by its id; nothing where it hides nothing that is shown. */
  drawPatch: (surface: Surface, id: string) => void;
  /** What is painted below a mark, whole pixels of the frame; what is hidden is hidden there, too. */
  below: (id: string, wanted: Rect) => RgbaPixels;
  /** A picture that the document holds; null where it holds none of that key. */
  picture: (key: string) => RgbaPixels | null;
}

/** A place on a selected mark that can be dragged. */
export interface Handle {
  id: string;
  at: Point;
  /** What it does, for pointer shape and accessible name. */
  role: 'end' | 'bend' | 'resize' | 'turn';
  /** The direction, of length 1, in which it is shown a little away from its place. */
  away?: Point;
}

/** One number of a mark that can be typed in the Marks list, in frame pixels. */
export interface NumberField {
  id: string;
  label: string;
  value: number;
}

/** What a person wants to do with a tool, in the order of the tools panel. */
export const groups = ['Point', 'Enclose', 'Draw', 'Say', 'Hide', 'Fit'] as const;
export type Group = (typeof groups)[number];

/** Least contrast with what is below: of marks and of words (W3C, WCAG 2.2, 1.4.11 and 1.4.3). */
export const LEAST = { mark: 3, words: 4.5 } as const;

/** What every mark has, of whatever kind. */
export interface MarkBase {
  id: string;
  kind: string;
  name?: string | undefined;
  off?: boolean | undefined;
  locked?: boolean | undefined;
  halo?: string | undefined;
  standsOut?: boolean | undefined;
  /** Of a clip, the pictures on which it is seen; all of them where it is absent. */
  time?: Stretch | undefined;
  /** 0–1, of the mark as a whole; only of kinds that fade. */
  opacity?: number | undefined;
}

/**
 * Everything that makes a kind of mark, in one place. All functions are pure: they give a new
 * mark and leave the old one as it is. Lengths are frame pixels.
 */
export interface MarkKind<M extends MarkBase> {
  kind: M['kind'];
  label: string;
  group: Group;
  /** Its place among the tools of its group. */
  rank: number;
  /** Its tool's picture: an SVG path on 24 × 24, drawn as a line (forms from Lucide, ISC licence). */
  icon: string;
  /** The picture of a mark, where marks of the kind differ. */
  iconOf?(mark: M): string;
  /** The first key of its tool; none where no tool makes it. */
  key?: string;
  /** What its tool starts with, where that is not `firstStyle`. */
  first?: Partial<Style>;
  schema: z.ZodType<M>;
  /** How it lies over what is below: multiply tints, normal covers. */
  blend: 'normal' | 'multiply';
  /** It may let what is below shine through. */
  fades?: true;
  /** How the tool makes one: along a stroke, from corner to corner, by a click, or by several. */
  made: (style: Style) => 'stroke' | 'drag' | 'place' | 'points';
  /** Shift holds the direction of a drag to steps of 15°; where absent, both sides alike. */
  directed?: true;
  /** A drag goes along the rail, as strokes do. */
  alongRail?: true;
  /** Settings that each shot begins anew. */
  anew?: readonly (keyof Style)[];
  /** Settings that all marks of the kind in a shot have in common. */
  common?: readonly (keyof Style)[];
  /** The settings that this kind uses, in the order of the strip. */
  settings: readonly (keyof Style)[];
  /** A new mark from the points the pointer went through (at least one). */
  create(id: string, path: readonly StrokePoint[], style: Style): M;
  /** True when a drag was too short to mean anything. */
  tooSmall(mark: M): boolean;
  /** It changes the whole view, whatever its bounds. */
  everywhere?: true;
  /** How far beyond its bounds the picture changes with it, where it looks around itself, pixels. */
  reach?: number;
  /** The part of the picture below that it shows elsewhere. */
  reads?(mark: M): Rect;
  /** The keys of the held pictures that it shows. */
  pictures?(mark: M): readonly string[];
  /** The contrast that its colour needs, and what of its own it stands on; none never stand out. */
  contrast?: { least: number; ground?(mark: M): string | null };
  /** The pixels it can touch. */
  bounds(mark: M, tools: MarkTools): Rect;
  hit(mark: M, at: Point, tolerance: number, tools: MarkTools): boolean;
  handles(mark: M, tools: MarkTools): Handle[];
  /** `keep` holds the ratio, or the direction to steps of 15°. */
  pull(mark: M, handle: string, to: Point, keep: boolean, tools: MarkTools): M;
  move(mark: M, by: Point): M;
  /** Where a mapping takes it: turned, sized with others, or with the picture below it. */
  through(mark: M, map: Mapping, tools: MarkTools): M;
  numbers(mark: M, tools: MarkTools): NumberField[];
  withNumber(mark: M, field: string, value: number): M;
  /** The mark with one changed setting; settings it does not use change nothing. */
  restyle(mark: M, style: Partial<Style>): M;
  styleOf(mark: M): Partial<Style>;
  /** The new mark laid to what the picture shows where it was drawn. */
  fit?(mark: M, path: readonly StrokePoint[], below: (wanted: Rect) => RgbaPixels): M;
  /** Where a shot has one mark of the kind at most: the one there is with what another brings. */
  joined?(there: M, another: M): { mark: M; label: string };
  /** All marks of the kind in a shot, from the lowest, put right; null where they are. */
  tidy?(marks: readonly M[]): readonly M[] | null;
  paint(surface: Surface, mark: M, tools: PaintTools, scene: Scene): void;
  /** Only of kinds that hide what is below them. */
  hide?(mark: M): HideArea;
  /** Only of kinds that hold words, which are typed in place. */
  words?: {
    /** False for those marks of the kind that bear none; all do where it is absent. */
    holds?(mark: M): boolean;
    /** It is nothing without its words: they are typed as soon as it is there. */
    atOnce?: true;
    /** They may be typed by a double click anywhere inside it. */
    inside?: true;
    read(mark: M): string;
    write(mark: M, text: string): M;
    field(mark: M, tools: MarkTools): WordsField;
  };
  /** A few words that tell this mark from others in the Marks list. */
  describe(mark: M): string;
}

/** A point of a stroke; pressure 0–1, ½ where the device has none. */
export interface StrokePoint extends Point {
  pressure?: number;
}
