import { clipLimits } from '@/core/contracts/clip';
import { shared } from '../base/shared';

/** When this process last heard of what is recorded, by a clock that nobody sets, ms. */
const heard = shared('heardOf', () => new Map<string, number>());

export const noteHeard = (shot: string): void => void heard.set(shot, performance.now());

export const forgetHeard = (shot: string): void => void heard.delete(shot);

/**
 * Whether it was heard of so lately that it goes on, whatever the computer's clock says meanwhile:
 * that may be set, and runs on while the computer sleeps.
 */
export function isHeard(shot: string): boolean {
  const at = heard.get(shot);
  return at !== undefined && performance.now() - at < clipLimits.silence * 1000;
}
