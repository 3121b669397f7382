/** Routes may load this file each for themselves; the person is the same. */
const kept = globalThis as { rezzikLastAct?: number };

/** So long after a take or a change a person counts as being in the middle of it, ms. */
const LULL = 2_000;

/** A person takes or marks now: what has time waits. */
export function personActs(): void {
  kept.rezzikLastAct = performance.now();
}

export const isBusy = (): boolean =>
  kept.rezzikLastAct !== undefined && performance.now() - kept.rezzikLastAct < LULL;
