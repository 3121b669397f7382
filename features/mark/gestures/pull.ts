import { kindOf, type Mark } from '@/core/marks/registry';
import { replaceMarks } from '../actions/change';
import { groupOf, pulledGroup } from '../actions/group';
import { session, update } from '../session/session';
import type { Gesture } from './contract';
import { round } from './draw';

/** Stores what is live as a step, if anything moved. */
const store = (label: string) => (): void => {
  const { live } = session();
  if (live.length) replaceMarks(live, label);
};

/** A handle of a mark is pulled. */
export const pulling = (mark: Mark, handle: string): Gesture => ({
  move({ at, keep }) {
    const { shaper } = session();
    update({ live: [kindOf(mark).pull(mark, handle, round(at), keep, { shaper })] });
  },
  end: store('Reshape'),
});

/** A handle of the box around several marks is pulled. */
export function pullingGroup(marks: readonly Mark[], handle: string): Gesture {
  const group = groupOf(marks);
  return {
    move: ({ at, keep }) => update({ live: pulledGroup(group, handle, at, keep) }),
    end: store('Size and turn several'),
  };
}
