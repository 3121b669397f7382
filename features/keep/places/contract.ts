import type { LucideIcon } from 'lucide-react';
import type { ShotDocument } from '@/core/document/document';
import type { PlaceName, ResultOf, StepOf } from '@/core/places/registry';
import type { Way } from '@/core/contracts/way';
import { whenStored } from '../../outbox/outbox';

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
  do: (shot: Handed, step: StepOf<N>) => Promise<ResultOf<N>>;
}

/** A fresh take may still be on its way to the server; an older one is there. */
export const onServer = async ({ id, fresh }: Handed): Promise<unknown> =>
  fresh ? whenStored(id) : undefined;

/** Size and format, as the server's addresses take them. */
export const wishOf = ({ size, format }: Leaves) => ({ ...size, ...(format && { format }) });
