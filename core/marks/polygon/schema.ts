import { z } from 'zod';
import { pathOf } from '../../values/shapes';
import { seenShape } from '../base';
import { rectShape } from '../shared/shapes';

const { colour, outline, fill, fillOpacity, dashed } = rectShape;

export const polygonSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('polygon'),
  points: pathOf(2, 500),
  ...{ colour, outline, fill, fillOpacity, dashed },
});
export type PolygonMark = z.infer<typeof polygonSchema>;
