import { z } from 'zod';
import { colour } from '../../values/shapes';
import type { Part } from './contract';

const schema = z.strictObject({
  width: z.int().min(0).max(400),
  colour,
  /** Radius of the outer corners; free shapes and torn edges have none. */
  corners: z.int().min(0).max(2000),
});
export type Border = z.infer<typeof schema>;

export const border: Part<typeof schema> = {
  label: 'Border',
  schema,
  first: { width: 8, colour: '#1D4A3F', corners: 0 },
};
