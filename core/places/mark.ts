import { z } from 'zod';
import { place } from './contract';

export const mark = place({
  step: z.strictObject({ do: z.literal('mark') }),
  label: () => 'Mark',
  said: (_: null) => 'Open in Mark',
  failing: 'Not opened.',
  shows: true,
});
