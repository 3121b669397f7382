import { z } from 'zod';
import { limits } from '../values/limits';
import { colour, opacity } from '../values/shapes';
import { stretchSchema } from '../values/stretch';
import { line } from '../values/text';

/** The fields that every kind's schema starts with. */
export const baseShape = {
  id: z.string().regex(/^[A-Za-z0-9_-]{1,40}$/),
  name: line(limits.nameLength).optional(),
  off: z.boolean().optional(),
  locked: z.boolean().optional(),
  /** Colour of the edge added so that the mark stands out. */
  halo: colour.optional(),
  /** False where no halo is to be added. */
  standsOut: z.boolean().optional(),
  /** Of a clip, the pictures on which it is seen; all of them where it is absent. */
  time: stretchSchema.optional(),
};

/** The same for kinds that may let what is below shine through; what hides never does. */
export const seenShape = { ...baseShape, opacity: opacity.optional() };

/** Takes from `style` the settings that `mark` has, and only those that are set. */
export function applyStyle<M extends object>(mark: M, style: object): M {
  const known = Object.entries(style).filter(([key, value]) => key in mark && value !== undefined);
  return { ...mark, ...Object.fromEntries(known) };
}

/** The given fields of a mark. */
export function pick<M extends object, K extends keyof M>(mark: M, keys: readonly K[]): Pick<M, K> {
  return Object.fromEntries(keys.map((key) => [key, mark[key]])) as Pick<M, K>;
}
