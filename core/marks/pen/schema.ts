import { z } from 'zod';
import { seenShape } from '../base';
import { tips } from '../names';
import { strokeShape } from '../shared/shapes';
import { strewable } from '../stamp/names';

export const penSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('pen'),
  tip: z.enum(tips),
  /** What the tip Strew scatters. */
  strewn: z.enum(strewable).optional(),
  ...strokeShape,
});
export type PenMark = z.infer<typeof penSchema>;
