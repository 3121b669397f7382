import { z } from 'zod';
import { colour } from '../values/shapes';

export const joinWays = ['stacked', 'side by side', 'grid', 'before after'] as const;
export type JoinWay = (typeof joinWays)[number];

/** How shots are put together; the first is the one that is asked for this. */
export const joinSchema = z
  .strictObject({
    with: z.array(z.uuid()).min(1).max(29),
    how: z.enum(joinWays),
    /** All as wide as the narrowest; side by side, as high as the lowest. */
    equal: z.boolean().default(false),
    /** Between them and around all, pixels. */
    gap: z.int().min(0).max(400).default(16),
    /** Null leaves it transparent. */
    background: colour.nullable().default('#FFFFFF'),
    /** Each gets a number that counts. */
    numbers: z.boolean().default(false),
  })
  .refine(({ how, with: others }) => how !== 'before after' || others.length === 1, {
    message: 'before and after are two shots',
    path: ['with'],
  });
export type Join = z.infer<typeof joinSchema>;
export type JoinInput = z.input<typeof joinSchema>;
