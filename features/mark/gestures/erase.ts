import { erase } from '../actions/handTools';
import { session, update } from '../session/session';
import { markAt } from '../session/marksAt';
import type { Gesture, Press } from './contract';

/** Marks the eraser touches look gone at once; they go when the pointer comes up, in one step. */
export function erasing({ at: first, scale: firstScale }: Press): Gesture {
  const gone = new Set<string>();
  const rub = (at: Press['at'], scale: number) => {
    const under = markAt(at, scale, gone);
    if (!under) return;
    gone.add(under.id);
    update({ live: [...session().live, { ...under, off: true }] });
  };
  rub(first, firstScale);
  return {
    move: ({ points, scale }) => points.forEach((point) => rub(point, scale)),
    end: () => erase(gone),
  };
}
