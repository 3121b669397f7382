import type { Stretch } from '@/core/values/stretch';
import { changeDocument } from '../session/changes';
import { session } from '../session/session';

/**
 * On which pictures of a clip the chosen marks are seen.
 * @param change one end of it or both, or null for all the time; an end beyond the other moves that
 */
export function setTime(change: Partial<Stretch> | null): void {
  const { moment, selection } = session();
  if (!moment) return;
  const ids = new Set(selection);
  changeDocument(
    change ? 'When it is seen' : 'Seen all the time',
    (draft) => {
      for (const mark of draft.marks) {
        if (!ids.has(mark.id) || mark.locked) continue;
        if (change === null) delete mark.time;
        else
          mark.time = within({ ...(mark.time ?? whole(moment.times.length)), ...change }, change);
      }
    },
    'time',
  );
}

const whole = (count: number): Stretch => ({ from: 0, to: count });

const within = ({ from, to }: Stretch, change: Partial<Stretch>): Stretch => {
  if (from < to) return { from, to };
  return change.from === undefined ? { from: to - 1, to } : { from, to: from + 1 };
};
