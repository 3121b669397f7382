import { z } from 'zod';
import { adjustSchema } from './adjust/adjust';
import { surroundSchema } from './surround/surround';

/** What is done to the whole picture; what is not there leaves it as it is. */
export const finishSchema = z.strictObject({
  adjust: adjustSchema.optional(),
  surround: surroundSchema.optional(),
});
export type Finish = z.infer<typeof finishSchema>;

/** With something changed; undefined where nothing is left that is done. */
export function withFinish(finish: Finish | undefined, change: Finish): Finish | undefined {
  const { adjust, surround } = { ...finish, ...change };
  const left = {
    ...(adjust && { adjust }),
    ...(surround && Object.values(surround).some(Boolean) && { surround }),
  };
  return Object.keys(left).length > 0 ? left : undefined;
}
