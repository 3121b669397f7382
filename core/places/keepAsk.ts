import { z } from 'zod';
import { place } from './contract';

/** Keep opens, its name selected; Enter keeps. */
export const keepAsk = place({
  step: z.strictObject({ do: z.literal('keepAsk') }),
  label: () => 'Keep, asking',
  said: (_: null) => 'Keep asks for its name',
  elsewhere: 'It is on the Shelf, to be kept from there',
  failing: 'Keep could not be opened.',
});
