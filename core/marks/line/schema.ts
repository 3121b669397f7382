import { z } from 'zod';
import { seenShape } from '../base';
import { bentShape } from '../shared/shapes';

export const lineSchema = z.strictObject({ ...seenShape, kind: z.literal('line'), ...bentShape });
export type LineMark = z.infer<typeof lineSchema>;
