import { z } from 'zod';
import { colour } from '../../values/shapes';
import type { Part } from './contract';

const offset = z.int().min(-400).max(400);
const schema = z.strictObject({
  x: offset,
  y: offset,
  /** Twice the standard deviation of its edge, as in CSS. */
  blur: z.int().min(0).max(400),
  colour,
  /** Percent. */
  strength: z.int().min(1).max(100),
});
export type Shadow = z.infer<typeof schema>;

export const shadow: Part<typeof schema> = {
  label: 'Shadow',
  schema,
  first: { x: 0, y: 8, blur: 24, colour: '#10231D', strength: 45 },
};

/** Standard deviation of a shadow's edge (W3C, CSS Backgrounds and Borders Level 3, box-shadow). */
export const deviationOf = ({ blur }: Pick<Shadow, 'blur'>): number => blur / 2;
