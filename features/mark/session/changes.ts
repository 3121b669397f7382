import type { ShotDocument } from '@/core/document/document';
import { tidied } from '@/core/marks/registry';
import * as history from '@/core/document/history';
import { shownKeys } from '@/core/document/heldPictures';
import { announce } from '../../ui/announce';
import { rememberNumbers } from './lastNumber';
import { timeNewMarks } from './moment';
import { session, update } from './session';
import { storeSoon } from './storing';

/** Changes of one kind that follow each other this fast are one step of undo. */
const JOINS_WITHIN = 1500;
let lastChange = { key: '', at: 0 };

/** Applies a change as a step; with a `joins` key, quick repeats become one step. */
export function changeDocument(
  label: string,
  recipe: (draft: ShotDocument) => void,
  joins = '',
): void {
  const now = performance.now();
  const joined = joins !== '' && joins === lastChange.key && now - lastChange.at < JOINS_WITHIN;
  lastChange = { key: joins, at: now };
  const before = session().history;
  const after = (joined ? history.changeOn : history.change)(before, label, (draft) => {
    recipe(draft);
    timeNewMarks(before.document, draft);
    tidy(draft);
    letGoPictures(draft);
  });
  if (after === before) return;
  update({ history: after });
  rememberNumbers(session().id, after.document.marks);
  if (!joined) announce(saidOf(label));
  storeSoon();
}

/** Adds to the last step what belongs to it, in silence. */
export function amendDocument(recipe: (draft: ShotDocument) => void): void {
  const before = session().history;
  const after = history.amend(before, recipe);
  if (after === before) return;
  update({ history: after });
  storeSoon();
}

function saidOf(label: string): string {
  const { length } = session().history.document.marks;
  return `${label}. ${length === 1 ? '1 mark' : `${length} marks`} now.`;
}

/** Numbers count on without gaps, for example, whatever was done to the marks. */
function tidy(draft: ShotDocument): void {
  tidied(draft.marks)?.forEach((mark, i) => {
    if (draft.marks[i] !== mark) draft.marks[i] = mark;
  });
}

/** Pictures that no piece shows any more go with it; undo brings them back. */
function letGoPictures(draft: ShotDocument): void {
  const { pictures } = draft;
  if (!pictures) return;
  const shown = shownKeys(draft);
  for (const key of Object.keys(pictures)) if (!shown.has(key)) delete pictures[key];
  if (Object.keys(pictures).length === 0) delete draft.pictures;
}

function step(to: history.History): void {
  const open = session();
  if (to === open.history) return;
  update({ trueUp: null });
  lastChange = { key: '', at: 0 };
  const ids = new Set(to.document.marks.map((m) => m.id));
  update({
    history: to,
    live: [],
    editing: null,
    selection: open.selection.filter((id) => ids.has(id)),
  });
  storeSoon();
}

export function undo(): void {
  const { history: now } = session();
  step(history.undo(now));
  const label = now.steps[now.position - 1]?.label;
  if (label) announce(`Undone: ${saidOf(label)}`);
}

export function redo(): void {
  const { history: now } = session();
  step(history.redo(now));
  const label = now.steps[now.position]?.label;
  if (label) announce(`Done again: ${saidOf(label)}`);
}
