import { z } from 'zod';
import { aligns, faces } from '../drawing/names';
import { firstMarkColour } from '../colour/markColours';
import { areaNames, countings, headShapes, holes, tips, pointerShapes } from './names';
import { firstStrewn, stampNames, strewable } from './stamp/names';
import { colour, opacity, thickness } from '../values/shapes';

/** What the strip above the picture sets; each tool remembers its own. */
export const styleSchema = z.object({
  colour,
  /** Of a mark as a whole: 1 covers what is below. */
  opacity,
  thickness,
  /** Thickness of outlines: 0 leaves the outline away. */
  outline: z.number().min(0).max(60),
  fill: colour.nullable(),
  fillOpacity: opacity,
  corner: z.number().min(0).max(500),
  heads: z.enum(['none', 'start', 'end', 'both']),
  dashed: z.boolean(),
  /** Form of the heads. */
  headShape: z.enum(headShapes),
  /** The body grows towards its head. */
  taper: z.boolean(),
  tip: z.enum(tips),
  /** What the tip Strew scatters. */
  strewn: z.enum(strewable),
  /** The highlighter goes straight along a line of text. */
  straight: z.boolean(),
  textSize: z.number().min(6).max(400),
  bold: z.boolean(),
  face: z.enum(faces),
  align: z.enum(aligns),
  lineSpacing: z.number().min(0.8).max(3),
  padding: z.number().min(0).max(3),
  /** How numbers are written. */
  counting: z.enum(countings),
  first: z.int().min(0).max(9_999),
  /** Border of a number's disc. */
  rim: colour.nullable(),
  size: z.number().min(10).max(400),
  /** How dark Dim around makes the rest, and how soft its edge is in pixels. */
  dimming: z.number().min(0.1).max(0.95),
  softness: z.number().min(0).max(60),
  /** Shape of what Dim around leaves bright and of a Close-up. */
  hole: z.enum(holes),
  zoom: z.number().min(1.5).max(8),
  /** Close-up: pixels as squares. */
  sharp: z.boolean(),
  stamp: z.enum(stampNames),
  /** A light or dark edge is added where the contrast is too low. */
  standsOut: z.boolean(),
  plate: colour.nullable(),
  pointer: z.enum(pointerShapes),
  /** Outline of what a Hide mark hides. */
  area: z.enum(areaNames),
  /** Grain of Blur and Blocks, pixels. */
  strength: z.number().min(2).max(60),
  paintOut: z.enum(['across', 'colour']),
});

export type Style = z.infer<typeof styleSchema>;

export const firstStyle: Style = {
  colour: firstMarkColour,
  opacity: 1,
  thickness: 6,
  outline: 4,
  fill: null,
  fillOpacity: 1,
  corner: 0,
  heads: 'end',
  dashed: false,
  headShape: 'solid',
  taper: false,
  tip: 'felt',
  strewn: firstStrewn,
  straight: false,
  textSize: 24,
  bold: false,
  face: 'plain',
  align: 'start',
  lineSpacing: 1.3,
  padding: 0.4,
  counting: 'numbers',
  first: 1,
  rim: '#FFFFFF',
  size: 36,
  dimming: 0.6,
  softness: 0,
  hole: 'box',
  zoom: 2,
  sharp: false,
  stamp: 'tick',
  standsOut: true,
  plate: '#FFFFFF',
  pointer: 'arrow',
  area: 'box',
  strength: 10,
  paintOut: 'across',
};
