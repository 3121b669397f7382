import { z } from 'zod';
import { place } from './contract';

export const mark = place({
  step: z.strictObject({ do: z.literal('mark') }),
  label: () => 'Mark',
  said: (_: null) => 'Open in Mark',
  failing: 'Not opened.',
  elsewhere: 'It is on the Shelf, to be opened in Mark',
  shows: true,
});
