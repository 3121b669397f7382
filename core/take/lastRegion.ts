import type { LastRegion } from '../contracts/settings';
import type { Kind } from '../contracts/way';

/**
 * What is remembered of a take for Repeat region; null for kinds whose place is of no use again. A
 * repeated region stays as it was, even where only a part of it is on the screen today.
 */
export function lastRegionAfter(
  kind: Kind,
  taken: LastRegion,
  before: LastRegion | undefined,
): LastRegion | null {
  if (kind === 'repeat') return before ? { ...before, at: taken.at } : taken;
  const { x, y, width, height } = taken.region;
  return kind === 'region' || kind === 'part'
    ? { ...taken, region: { x, y, width, height } }
    : null;
}
