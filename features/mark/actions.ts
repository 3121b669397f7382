import type { ViewShape } from '@/core/contracts/shapes';
import type { ShotDocument } from '@/core/contracts/document';
import type { Point } from '@/core/geometry/point';
import { centre, right, bottom, type Rect } from '@/core/geometry/rect';
import type { StrokePoint } from '@/core/marks/contract';
import { kindOf, type Mark, type MarkName } from '@/core/marks/registry';
import type { Style } from '@/core/marks/style';
import { withBright } from '@/core/marks/dim';
import { renumbered } from '@/core/marks/number/counting';
import { shownKeys } from '@/core/shot/pictures';
import { cropInside, untouched } from '@/core/shot/document';
import { pictureSize } from '@/core/shot/turn';
import { shapedView } from '@/core/shot/viewShape';
import * as history from '@/core/shot/history';
import { session, update, type Tool } from './session';
import { rememberStyle, useStyles } from './styles';
import { storeSoon } from './storing';
import { isMarkTool } from './tools';
import { rememberTool } from './handTools';
import { rememberNumbers } from './lastNumber';
import { newId } from './newId';
import { standingOut } from './standsOut';

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
    keepCount(draft);
    letGoPictures(draft);
  });
  if (after === before) return;
  update({ history: after });
  rememberNumbers(session().id, after.document.marks);
  storeSoon();
}

/** Numbers count on without gaps, whatever was done to the marks. */
function keepCount(draft: ShotDocument): void {
  const right = renumbered(draft.marks);
  if (!right) return;
  const first = draft.marks.find((mark) => mark.kind === 'number')?.first ?? 1;
  let i = 0;
  for (const mark of draft.marks) {
    if (mark.kind !== 'number') continue;
    mark.value = right[i] ?? mark.value;
    mark.first = first;
    i += 1;
  }
}

/** Pictures that no piece shows any more go with it; undo brings them back. */
function letGoPictures(draft: ShotDocument): void {
  const { pictures } = draft;
  if (!pictures) return;
  const shown = shownKeys(draft.marks);
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

export const undo = (): void => step(history.undo(session().history));
export const redo = (): void => step(history.redo(session().history));

export function setTitle(title: string): void {
  const trimmed = title.trim();
  if (trimmed === '' || trimmed === session().title) return;
  update({ title: trimmed });
  storeSoon();
}

export const marks = (): readonly Mark[] => session().history.document.marks;
export const markById = (id: string): Mark | undefined => marks().find((m) => m.id === id);
export const selectedMarks = (): Mark[] => session().selection.flatMap((id) => markById(id) ?? []);

export const select = (ids: readonly string[]): void => update({ selection: ids, editing: null });

export function chooseTool(tool: Tool): void {
  const { history: h, cropping } = session();
  if (cropping && tool === 'crop') return;
  if (cropping) applyCrop();
  const { tool: old } = session();
  if (isMarkTool(old)) rememberTool(old);
  update({
    tool,
    live: [],
    editing: null,
    selection: tool === 'grab' ? session().selection : [],
    corners: [],
    cropping: tool === 'crop' ? h.document.view.crop : null,
    squaring: null,
    cutting: false,
    camera: tool === 'crop' || cropping ? { ...session().camera, mode: 'fit' } : session().camera,
  });
}

/** How the tool makes its marks, as it is set. */
export const madeBy = (name: MarkName) => kindOf(name).made(useStyles.getState()[name]);

/** A mark as the tool in hand would make it along a path; not in the document yet. */
export const makeMark = (name: MarkName, path: readonly StrokePoint[], id = newId()): Mark =>
  kindOf(name).create(id, path, useStyles.getState()[name]);

export function addMark(mark: Mark): void {
  update({ live: [] });
  const dimmed = mark.kind === 'dim' ? marks().find((m) => m.kind === 'dim') : undefined;
  if (mark.kind === 'dim' && dimmed?.kind === 'dim') {
    // All dimming is one: a second place stays bright, too.
    replaceMarks([withBright(dimmed, mark)], 'Leave another place bright');
    update({ selection: [dimmed.id] });
    return;
  }
  const plain = useStyles.getState()[mark.kind].standsOut ? {} : { plain: true };
  const seen = standingOut({ ...mark, ...plain });
  changeDocument(`Add ${kindOf(mark).label.toLowerCase()}`, (draft) => {
    draft.marks.push(seen);
  });
  const stays = madeBy(mark.kind) === 'stroke';
  update({ selection: stays ? [] : [mark.id] });
}

/** A mark of the tool in the middle of what is shown, for those who use the keyboard. */
export function addInMiddle(name: MarkName, shown: Rect): void {
  const c = centre(shown);
  const w = Math.max(20, shown.width / 8);
  const h = Math.max(14, shown.height / 12);
  const mark = makeMark(name, [
    { x: Math.round(c.x - w), y: Math.round(c.y - h) },
    { x: Math.round(c.x + w), y: Math.round(c.y + h) },
  ]);
  if (opensAtOnce(mark)) {
    beginWords(mark, true);
    return;
  }
  addMark(mark);
  select([mark.id]);
}

/** Replaces marks by changed ones of the same ids. */
export function replaceMarks(changed: readonly Mark[], label: string, joins = ''): void {
  const byId = new Map(changed.map((mark) => [mark.id, standingOut(mark)]));
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

const unlocked = (): Mark[] => selectedMarks().filter((mark) => !mark.locked);

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

const DUPLICATE_OFFSET = { x: 16, y: 16 };

export function duplicateSelected(): void {
  const copies = selectedMarks().map((mark) => ({
    ...kindOf(mark).move(mark, DUPLICATE_OFFSET),
    id: newId(),
    locked: undefined,
  }));
  if (copies.length === 0) return;
  changeDocument('Duplicate', (draft) => {
    draft.marks.push(...copies);
  });
  select(copies.map((m) => m.id));
}

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

/** Sets what a mark carries beside its shape: its name, whether it is off or locked. */
export function setOnMark(
  id: string,
  change: Partial<Pick<Mark, 'name' | 'off' | 'locked'>> & { uncovered?: boolean | undefined },
): void {
  const mark = markById(id);
  if (mark) replaceMarks([{ ...mark, ...change }], 'Change a mark');
}

export function setNumber(id: string, field: string, value: number): void {
  const mark = markById(id);
  if (mark && !mark.locked)
    replaceMarks([kindOf(mark).withNumber(mark, field, value)], 'Change a number');
}

/** A setting of the strip: for the selected marks, else for the tool; either way remembered. */
export function setStyle(change: Partial<Style>): void {
  const chosen = unlocked();
  const { tool } = session();
  const names = chosen.length ? chosen.map((m) => m.kind) : isMarkTool(tool) ? [tool] : [];
  for (const name of new Set(names)) rememberStyle(name, change);
  if (chosen.length === 0) return;
  // One shot counts one way: what is set on one number is set on all.
  const counted =
    chosen.some((m) => m.kind === 'number') && ('first' in change || 'counting' in change);
  const meant = counted ? marks().filter((m) => m.kind === 'number' || chosen.includes(m)) : chosen;
  const { standsOut } = change;
  const changed = meant.map((mark) => ({
    ...kindOf(mark).restyle(mark, change),
    ...(standsOut !== undefined && { plain: standsOut ? undefined : true }),
  }));
  const fields = Object.keys(change).join();
  replaceMarks(changed, 'Change the look', `style ${fields} ${changed.map((m) => m.id).join()}`);
}

/** Kinds that are nothing without their words are typed into as soon as they are there. */
export const opensAtOnce = (mark: Mark): boolean => mark.kind === 'text' || mark.kind === 'callout';

/** Opens the field for a mark's words; a new one is not in the document until it holds some. */
export function beginWords(mark: Mark, isNew: boolean): void {
  update({ editing: mark.id, live: isNew ? [mark] : [], selection: isNew ? [] : [mark.id] });
}

export function endWords(mark: Mark, words: string): void {
  const known = markById(mark.id);
  update({ editing: null, live: [] });
  const kind = kindOf(mark);
  const next = kind.words?.write(known ?? mark, words);
  if (!next) return;
  if (opensAtOnce(mark) && words.trim() === '') {
    if (known) {
      select([mark.id]);
      deleteSelected();
    }
  } else if (known) replaceMarks([next], 'Change the words');
  else addMark(next);
}

/** The size of the frame as the view turns it. */
function shownSize(): { width: number; height: number } {
  const { frame, history: h } = session();
  return pictureSize(frame, h.document.view.turn);
}

/** The view while Crop is in hand; only whole pixels inside the frame. */
export const setCropping = (crop: Rect): void =>
  update({ cropping: cropInside(crop, shownSize()) });

/** Keeps the crop at a ratio of width to height from now on; null lets go. */
export function setCropRatio(ratio: number | null): void {
  const { cropping } = session();
  update({ cropRatio: ratio });
  if (!cropping || ratio === null) return;
  const width = Math.min(cropping.width, cropping.height * ratio);
  const height = width / ratio;
  const c = centre(cropping);
  setCropping({ x: c.x - width / 2, y: c.y - height / 2, width, height });
}

export function setView(crop: Rect, label = 'Crop', joins = ''): void {
  const inside = cropInside(crop, shownSize());
  changeDocument(
    label,
    (draft) => {
      draft.view.crop = inside;
    },
    joins,
  );
}

/** What the view shows of its crop: all of it, an oval, or a free shape. */
export function setShape(shape: ViewShape | undefined, joins = ''): void {
  const picture = shownSize();
  changeDocument(
    'Change the shape',
    (draft) => {
      if (shape) draft.view = shapedView(shape, draft.view.crop, picture);
      else delete draft.view.shape;
    },
    joins,
  );
  if (session().cropping) update({ cropping: session().history.document.view.crop });
}

function applyCrop(): void {
  const { cropping } = session();
  if (cropping) setView(cropping);
}

/** Leaves Crop, with or without its change. */
export function endCrop(apply: boolean): void {
  if (apply) applyCrop();
  update({ cropping: null, tool: 'grab', camera: { ...session().camera, mode: 'fit' } });
}

/** Back to the untouched frame, in one step that undo takes back. */
export function backToFrame(): void {
  const whole = untouched(session().frame);
  changeDocument('Back to the untouched frame', (draft) => {
    draft.marks = [];
    draft.view = whole.view;
  });
  update({ selection: [], live: [], editing: null, cropping: null });
}

/** The shown part of the view, in frame pixels. */
export function shownPart(view: Rect, seen: Rect): Rect {
  const x = Math.max(view.x, seen.x);
  const y = Math.max(view.y, seen.y);
  const width = Math.min(right(view), right(seen)) - x;
  const height = Math.min(bottom(view), bottom(seen)) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : view;
}
