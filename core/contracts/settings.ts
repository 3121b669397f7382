import { z } from 'zod';
import { limits } from './limits';

const shape = {
  kind: z.enum(['full', 'region']),
  delay: z.number().min(0).max(limits.delay),
  thenMark: z.boolean(),
  thenCopy: z.boolean(),
  thenKeep: z.boolean(),
  showCountdown: z.boolean(),
  sound: z.boolean(),
  notice: z.boolean(),
};

/** How a person likes to take; remembered from one take to the next. */
export const settingsSchema = z.object(shape);
export type Settings = z.infer<typeof settingsSchema>;

export const settingsPatchSchema = z.strictObject(shape).partial();

export const firstSettings: Settings = {
  kind: 'full',
  delay: 0,
  thenMark: true,
  thenCopy: false,
  thenKeep: false,
  showCountdown: true,
  sound: false,
  notice: true,
};
