import { z } from 'zod';
import { adjustSchema } from './adjust/adjust';

/** What is done to the whole picture; what is not there leaves it as it is. */
export const finishSchema = z.strictObject({ adjust: adjustSchema.optional() });
export type Finish = z.infer<typeof finishSchema>;
