import { shared } from '../base/shared';

const kept = shared<{ lastAct?: number }>('quiet', () => ({}));

/** So long after a take or a change a person counts as being in the middle of it, ms. */
const LULL = 2_000;

/** A person takes or marks now: what has time waits. */
export function personActs(): void {
  kept.lastAct = performance.now();
}

export const isBusy = (): boolean =>
  kept.lastAct !== undefined && performance.now() - kept.lastAct < LULL;
