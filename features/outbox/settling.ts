/** How to wait for what was drawn on a shot in this tab, by the shot's id. */
const waits = new Map<string, () => Promise<void>>();

/** Whoever sends the changes of a shot says how to wait for the last of them. */
export function settleBy(id: string, wait: () => Promise<void>): void {
  waits.set(id, wait);
}

/** Nothing of the shot is on its way any more, as far as this `wait` knows. */
export function settled(id: string, wait: () => Promise<void>): void {
  if (waits.get(id) === wait) waits.delete(id);
}

/** Resolves when the server has all that was drawn on a shot in this tab. */
export async function whenSettled(id: string): Promise<void> {
  await waits.get(id)?.();
}
