import { z } from 'zod';
import { place } from './contract';

export const print = place({
  step: z.strictObject({ do: z.literal('print') }),
  label: () => 'Print',
  said: (_: null) => 'Ready to print',
  failing: 'Not printed.',
  elsewhere: 'Print it from Rezzik; it is on the Shelf',
});
