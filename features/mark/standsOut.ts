import type { Mark } from '@/core/marks/registry';
import { contrastBelow, withHalo } from '@/core/shot/standsOut';
import { sceneOf } from './scene';
import { session } from './session';

function sceneWith(mark: Mark) {
  const { marks } = session().history.document;
  const known = marks.some(({ id }) => id === mark.id);
  return sceneOf(known ? marks.map((m) => (m.id === mark.id ? mark : m)) : [...marks, mark]);
}

/** The contrast of a mark with what is below it; null where that means nothing. */
export function contrastOf(mark: Mark): number | null {
  const { tools, scene } = sceneWith(mark);
  return contrastBelow(mark, tools, scene);
}

/** The mark with a halo where it needs one. Tests without a canvas leave it as it is. */
export function standingOut(mark: Mark): Mark {
  if (typeof OffscreenCanvas === 'undefined') return mark;
  const { tools, scene } = sceneWith(mark);
  return withHalo(mark, tools, scene);
}
