import { z } from 'zod';
import { colour, coordinate, extent } from '../../values/shapes';
import { line } from '../../values/text';
import { seenShape } from '../base';
import { turnedShape } from '../shared/shapes';
import { stampNames } from './names';

export const stampSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('stamp'),
  stamp: z.enum(stampNames),
  x: coordinate,
  y: coordinate,
  width: extent,
  height: extent,
  colour,
  /** What stands on a key cap. */
  text: line(40).default(''),
  ...turnedShape,
});
export type StampMark = z.infer<typeof stampSchema>;
