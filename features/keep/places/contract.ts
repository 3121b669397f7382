import type { LucideIcon } from 'lucide-react';
import type { ShotDocument } from '@/core/document/document';
import type { PlaceName, ResultOf, StepOf } from '@/core/places/registry';
import type { Way } from '@/core/contracts/way';
import { whenStored } from '../../outbox/outbox';
import { isGone } from '../../trail/trail';

/** What a way says of the picture that leaves: its format and size. */
export type Leaves = Pick<Way, 'format' | 'size'>;

/** A shot that something is done with; its frame is at hand only just after the take. */
export interface Handed {
  id: string;
  leaves: Leaves;
  fresh?: { frame: ImageBitmap; document: ShotDocument };
}

/** How the page does what a place says. */
export interface PagePlace<N extends PlaceName> {
  icon: LucideIcon;
  do: (shot: Handed, step: StepOf<N>, goOn: () => void) => Promise<ResultOf<N>>;
}

/**
 * A fresh take may still be on its way to the server; an older one is there.
 * @throws Error when it was thrown away meanwhile
 */
export async function onServer({ id, fresh }: Handed): Promise<void> {
  if (fresh) await whenStored(id);
  if (isGone(id)) throw new Error('The take was thrown away.');
}

/** Size and format, as the server's addresses take them. */
export const wishOf = ({ size, format }: Leaves) => ({ ...size, ...(format && { format }) });
