import { levelled } from '@/core/document/turnDocument';
import { distance } from '@/core/geometry/point';
import { currentTurn, setTurn } from '../fit/turning';
import { session, update } from '../session/session';
import type { Gesture, Press } from './contract';

/** Shorter lines say nothing of a direction; pixels. */
const SHORTEST = 8;

/** The line that is drawn along what should be level, or upright, says how to turn. */
export const levelling = ({ at: start }: Press): Gesture => ({
  move: ({ at }) => update({ measured: [start, at] }),
  end() {
    const { measured } = session();
    update({ measured: null });
    if (!measured) return;
    const [a, b] = measured;
    if (distance(a, b) < SHORTEST) return;
    const turn = currentTurn();
    setTurn({ ...turn, angle: levelled(turn, a, b) }, 'Level the picture');
  },
});
