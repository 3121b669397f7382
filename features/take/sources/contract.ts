import type { Provenance } from '@/core/contracts/provenance';

/** A stilled picture: what choosing happens on, and later the frame. */
export interface Stilled {
  picture: ImageBitmap;
  provenance: Provenance;
  /** A first name for the shot. */
  title: string;
}

/** A place frames come from. What it can do decides what Take offers. */
export interface Source {
  name: 'desk' | 'screen';
  label: string;
  /** The displays one may choose from; empty when the source is one picture. */
  displays: readonly { id: string; label: string }[];
  /** Everything on it at this moment, whole resolution. @throws with words for the person */
  still(display: string): Promise<Stilled>;
}
