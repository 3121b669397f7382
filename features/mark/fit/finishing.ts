import { finishings, type Finishing } from '../session/tool';
import { session, update } from '../session/session';

export const finishingLabels: Record<Finishing, string> = {
  adjust: 'Adjust',
  surround: 'Surround',
  look: 'Look',
  join: 'Join',
};

export const chooseFinishing = (finishing: Finishing): void => update({ finishing, before: false });

/** The next of the group, or the one before. */
export function stepFinishing(by: 1 | -1): void {
  const at = finishings.indexOf(session().finishing) + by + finishings.length;
  chooseFinishing(finishings[at % finishings.length] ?? 'adjust');
}
