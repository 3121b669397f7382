import type { Point } from '@/core/geometry/point';
import { kindOf, type Mark } from '@/core/marks/registry';
import { untouched } from '@/core/document/view';
import { changeDocument } from '../session/changes';
import { session, update } from '../session/session';
import { standingOut } from '../recognise/standsOut';
import { markById, select, unlocked } from '../session/select';

/** The name as it is shown; it is stored apart from the document, by features/names. */
export const setTitle = (title: string): void => update({ title, titleOwn: true });

/** Replaces marks by changed ones of the same ids. */
export function replaceMarks(changed: readonly Mark[], label: string, joins = ''): void {
  const byId = new Map(standingOut(changed).map((mark) => [mark.id, mark]));
  update({ live: [] });
  changeDocument(
    label,
    (draft) => {
      draft.marks.forEach((mark, i) => {
        const now = byId.get(mark.id);
        if (now) draft.marks[i] = now;
      });
    },
    joins,
  );
}

export function nudge(by: Point): void {
  const moved = unlocked().map((mark) => kindOf(mark).move(mark, by));
  if (moved.length) replaceMarks(moved, 'Move', `nudge ${moved.map((m) => m.id).join()}`);
}

export function deleteSelected(): void {
  const gone = new Set(unlocked().map((m) => m.id));
  if (gone.size === 0) return;
  changeDocument('Delete', (draft) => {
    draft.marks = draft.marks.filter((mark) => !gone.has(mark.id));
  });
  select([]);
}

/** Sets what a mark carries beside its shape: its name, whether it is off or locked. */
export function setOnMark(
  id: string,
  change: Partial<Pick<Mark, 'name' | 'off' | 'locked'>> & { uncovered?: boolean | undefined },
): void {
  changeDocument('Change a mark', (draft) => {
    const at = draft.marks.findIndex((mark) => mark.id === id);
    const mark = draft.marks[at];
    // Nothing that is seen of it changes, or all of it: its contrast stays.
    if (mark) draft.marks[at] = { ...mark, ...change };
  });
}

export function setNumber(id: string, field: string, value: number): void {
  const mark = markById(id);
  if (mark && !mark.locked)
    replaceMarks([kindOf(mark).withNumber(mark, field, value)], 'Change a number');
}

/** Back to the untouched frame, in one step that undo takes back. */
export function backToFrame(): void {
  const whole = untouched(session().frame);
  changeDocument('Back to the untouched frame', (draft) => {
    draft.marks = [];
    draft.view = whole.view;
    delete draft.finish;
  });
  update({ selection: [], live: [], editing: null, cropping: null });
}
