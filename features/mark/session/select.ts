import type { Mark } from '@/core/marks/registry';
import { isSeenNow } from './moment';
import { session, update } from './session';

export const marks = (): readonly Mark[] => session().history.document.marks;

export const markById = (id: string): Mark | undefined => marks().find((m) => m.id === id);

/** In the order in which they were chosen. */
export function selectedMarks(): Mark[] {
  const byId = new Map(marks().map((mark) => [mark.id, mark]));
  return session().selection.flatMap((id) => byId.get(id) ?? []);
}

/** Whether any of them is on the picture that is open. */
export const isSelectionSeen = (): boolean => selectedMarks().some(isSeenNow);

export const select = (ids: readonly string[]): void => update({ selection: ids, editing: null });

export const unlocked = (): Mark[] => selectedMarks().filter((mark) => !mark.locked);
