import { rectFromPoints } from '@/core/geometry/rect';
import { copyWordsOf } from '../recognise/wordsOut';
import { session, update } from '../session/session';
import type { Gesture, Press } from './contract';

/** The words in a frame are read and copied. */
export const framingWords = ({ at: start }: Press): Gesture => ({
  move: ({ at }) => update({ marquee: rectFromPoints(start, at) }),
  end() {
    const { marquee } = session();
    update({ marquee: null });
    if (marquee && marquee.width > 3 && marquee.height > 3) void copyWordsOf(marquee);
  },
});
