/** Something that takes a while, and how far it is. */
export interface HowFar {
  /** When it was begun, ms since 1970. */
  since: number;
  /** 0–1 of it is done. */
  progress: number;
}

/** Before so much of it is done nothing can be told. */
const LEAST = 0.02;

/** About how many seconds it will still take; null where that cannot be told. */
export const secondsLeft = ({ since, progress }: HowFar): number | null =>
  progress > LEAST ? ((Date.now() - since) / 1000) * (1 / progress - 1) : null;
