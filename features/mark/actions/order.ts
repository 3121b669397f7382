import { changeDocument } from '../session/changes';
import { marks } from '../session/select';

/** Moves a mark to a place in the order: 0 is the lowest. */
export function moveInOrder(id: string, to: number): void {
  changeDocument('Change the order', (draft) => {
    const from = draft.marks.findIndex((m) => m.id === id);
    const [mark] = from < 0 ? [] : draft.marks.splice(from, 1);
    if (mark) draft.marks.splice(Math.min(Math.max(to, 0), draft.marks.length), 0, mark);
  });
}

export function shiftInOrder(id: string, by: 1 | -1): void {
  const at = marks().findIndex((m) => m.id === id);
  if (at >= 0) moveInOrder(id, at + by);
}
