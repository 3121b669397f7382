import { z } from 'zod';
import { seenShape } from '../base';
import { strokeShape } from '../shared/shapes';

export const highlighterSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('highlighter'),
  ...strokeShape,
  /** Drawn along a line of text. */
  straight: z.boolean().default(false),
});
export type HighlighterMark = z.infer<typeof highlighterSchema>;
