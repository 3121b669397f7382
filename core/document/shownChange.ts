import type { ShotDocument } from './document';
import { hides } from '../marks/registry';

const hiding = ({ view, marks }: ShotDocument): string =>
  JSON.stringify([view, marks.filter(hides)]);

/**
 * What a change means for what is to be seen: “hidden” where something is hidden, or the view is
 * another, so that what was known of the picture may not be shown any more; “same” where all that
 * is painted stays.
 */
export function shownChange(
  before: ShotDocument,
  after: ShotDocument,
): 'same' | 'changed' | 'hidden' {
  if (hiding(before) !== hiding(after)) return 'hidden';
  // A held picture never changes under its key.
  const painted = ({ marks, pictures, finish }: ShotDocument) =>
    JSON.stringify([marks, Object.keys(pictures ?? {}), finish]);
  return painted(before) === painted(after) ? 'same' : 'changed';
}
