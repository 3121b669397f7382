import { rectFromPoints } from '@/core/geometry/rect';
import { select } from '../session/select';
import { session, update } from '../session/session';
import { markAt, marksInside } from '../session/marksAt';
import type { Gesture, Press } from './contract';
import { moving } from './move';

/** Grab: what lies under it is selected and moved; from where nothing lies, a frame selects. */
export function grabbing({ at, scale, adds, copies }: Press): Gesture {
  const { selection } = session();
  const mark = markAt(at, scale);
  if (!mark) {
    if (!adds) select([]);
    return framing(at, adds ? selection : []);
  }
  const others = selection.filter((id) => id !== mark.id);
  const isSelected = others.length < selection.length;
  const wanted = adds ? [...selection, mark.id] : [mark.id];
  select(isSelected ? (adds ? others : selection) : wanted);
  return moving(at, copies);
}

/** A frame drawn around marks selects those that lie wholly inside, beside `before`. */
function framing(start: Press['at'], before: readonly string[]): Gesture {
  return {
    move({ at }) {
      const marquee = rectFromPoints(start, at);
      const inside = marksInside(marquee).map((mark) => mark.id);
      update({ marquee, selection: [...new Set([...before, ...inside])] });
    },
    end: () => update({ marquee: null }),
  };
}
