import { z } from 'zod';
import { aligns, faces } from '../../drawing/names';
import { limits } from '../../values/limits';
import {
  colour,
  coordinate,
  extent,
  opacity,
  pathOf,
  pointSchema,
  strokeOf,
  thickness,
} from '../../values/shapes';
import { text } from '../../values/text';
import { baseShape } from '../base';
import { areaNames, headShapes } from '../names';

/** What boxes and ovals share. */
export const rectShape = {
  x: coordinate,
  y: coordinate,
  width: extent,
  height: extent,
  colour,
  outline: z.number().min(0).max(60),
  fill: colour.nullable().default(null),
  fillOpacity: opacity.default(1),
  dashed: z.boolean().default(false),
};

/** What arrows and lines share. */
export const bentShape = {
  from: pointSchema,
  to: pointSchema,
  bend: pointSchema.nullable().default(null),
  colour,
  thickness: thickness,
  heads: z.enum(['none', 'start', 'end', 'both']),
  dashed: z.boolean().default(false),
  headShape: z.enum(headShapes).default('solid'),
  taper: z.boolean().default(false),
};

/** What pen and highlighter share. A point is [x, y, pressure 0–1]. */
export const strokeShape = {
  points: strokeOf(1, limits.points),
  colour,
  thickness,
};

/** What every Hide mark has: where it hides. A free area goes around its points. */
export const hideShape = {
  ...baseShape,
  x: coordinate,
  y: coordinate,
  width: extent,
  height: extent,
  area: z.enum(areaNames).default('box'),
  points: pathOf(0, limits.points).optional(),
  /** Switched off it stays hidden in what leaves, unless a person said otherwise. */
  uncovered: z.boolean().optional(),
};

/** The field of kinds that can stand at an angle: degrees clockwise. */
export const turnedShape = { angle: z.number().gt(-180.001).max(180).optional() };

/** The look of words in a mark. */
export const wordsShape = {
  text: text(limits.textLength).default(''),
  textSize: z.number().min(6).max(400).default(24),
  bold: z.boolean().default(false),
  face: z.enum(faces).default('plain'),
  align: z.enum(aligns).default('start'),
  lineSpacing: z.number().min(0.8).max(3).default(1.3),
};
