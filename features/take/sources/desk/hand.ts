import type { HandDoes } from '../contract';

/** Who listens to what a hand does on the desk, in desk pixels. */
const listening = new Set<(what: HandDoes) => void>();

export const tellHand = (what: HandDoes): void => listening.forEach((heard) => heard(what));

/** @returns how to stop listening */
export function hearHand(heard: (what: HandDoes) => void): () => void {
  listening.add(heard);
  return () => void listening.delete(heard);
}
