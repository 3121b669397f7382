/** Raised by every start and every Esc, so that work of an abandoned take ends without a trace. */
let attempt = 0;

/** Whatever is still on its way belongs to no take any more. */
export function nextAttempt(): number {
  attempt += 1;
  return attempt;
}

/** True while nothing else was begun, and nobody has left it. */
export const isCurrent = (mine: number): boolean => mine === attempt;

/** The one that is going on. */
export const currentAttempt = (): number => attempt;
