import type { PlaceName, ResultOf, StepOf } from '@/core/places/registry';
import type { Way } from '@/core/contracts/way';

/** A stored shot that something is done with, and what the way says of the picture that leaves. */
export interface Handed {
  id: string;
  leaves: Pick<Way, 'format' | 'size'>;
}

/** How the server does what a place says. @throws Error in words for the person */
export type ServerPlace<N extends PlaceName> = (
  shot: Handed,
  step: StepOf<N>,
) => Promise<ResultOf<N>>;

/** Size and format, as what encodes a picture takes them. */
export const wishOf = ({ size, format }: Handed['leaves']) => ({
  ...size,
  ...(format && { format }),
});
