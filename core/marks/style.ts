import { z } from 'zod';
import { firstMarkColour } from '../colour/markColours';
import { pointerShapes } from './piece/shapes';
import { colour, opacity, thickness } from '../contracts/shapes';

/** What the strip above the picture sets; each tool remembers its own. */
export const styleSchema = z.object({
  colour,
  thickness,
  /** Thickness of outlines: 0 leaves the outline away. */
  outline: z.number().min(0).max(60),
  fill: colour.nullable(),
  fillOpacity: opacity,
  corner: z.number().min(0).max(500),
  heads: z.enum(['none', 'start', 'end', 'both']),
  dashed: z.boolean(),
  textSize: z.number().min(6).max(400),
  bold: z.boolean(),
  plate: colour.nullable(),
  pointer: z.enum(pointerShapes),
});

export type Style = z.infer<typeof styleSchema>;

export const firstStyle: Style = {
  colour: firstMarkColour,
  thickness: 6,
  outline: 4,
  fill: null,
  fillOpacity: 1,
  corner: 0,
  heads: 'end',
  dashed: false,
  textSize: 24,
  bold: false,
  plate: '#FFFFFF',
  pointer: 'arrow',
};
