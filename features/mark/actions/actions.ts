import type { Point } from '@/core/geometry/point';
import { centre, type Rect } from '@/core/geometry/rect';
import type { StrokePoint } from '@/core/marks/contract';
import { kindOf, wordsOf, type Mark, type MarkName } from '@/core/marks/registry';
import type { Style } from '@/core/marks/style';
import { untouched } from '@/core/document/view';
import { changeDocument } from '../session/changes';
import { applyCrop, startCrop } from '../fit/crop';
import { session, update, type Tool } from '../session/session';
import { rememberStyle, useStyles } from '../session/styles';
import { isMarkTool } from '../panels/tools';
import { rememberTool } from '../session/lastTool';
import { newId } from '../session/newId';
import { standingOut } from '../recognise/standsOut';

/** The name as it is shown; it is stored apart from the document, by features/names. */
export const setTitle = (title: string): void => update({ title });

export const marks = (): readonly Mark[] => session().history.document.marks;
export const markById = (id: string): Mark | undefined => marks().find((m) => m.id === id);
/** In the order in which they were chosen. */
export function selectedMarks(): Mark[] {
  const byId = new Map(marks().map((mark) => [mark.id, mark]));
  return session().selection.flatMap((id) => byId.get(id) ?? []);
}

export const select = (ids: readonly string[]): void => update({ selection: ids, editing: null });

/** Everything that can be taken hold of, by Grab. */
export function selectAll(): void {
  chooseTool('grab');
  select(marks().flatMap((mark) => (mark.off || mark.locked ? [] : [mark.id])));
}

export function chooseTool(tool: Tool): void {
  const { cropping } = session();
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
    chosen: true,
    cropping: null,
    cropSeen: null,
    squaring: null,
    cutting: false,
    camera: cropping ? { ...session().camera, mode: 'fit' } : session().camera,
  });
  if (tool === 'crop') startCrop();
}

/** How the tool makes its marks, as it is set. */
export const madeBy = (name: MarkName) => kindOf(name).made(useStyles.getState()[name]);

/** A mark as the tool in hand would make it along a path; not in the document yet. */
export const makeMark = (name: MarkName, path: readonly StrokePoint[], id = newId()): Mark =>
  faded(
    kindOf(name).create(id, path, useStyles.getState()[name]),
    useStyles.getState()[name].opacity,
  );

/** The mark with an opacity, where its kind has one; 1 is not written down. */
function faded(mark: Mark, opacity: number | undefined): Mark {
  if (opacity === undefined || !kindOf(mark).fades) return mark;
  return Object.assign({ ...mark }, { opacity: opacity < 1 ? opacity : undefined });
}

/** The mark with or without an edge where it needs one; that it gets one is not written down. */
function edged(mark: Mark, standsOut: boolean | undefined): Mark {
  if (standsOut === undefined) return mark;
  const { standsOut: _, ...bare } = mark;
  return standsOut ? bare : { ...bare, standsOut };
}

/** Whether what is in hand may let what is below shine through. */
export function fadesNow(): boolean {
  const { tool, selection } = session();
  const first = markById(selection[0] ?? '');
  if (first) return kindOf(first).fades === true;
  return isMarkTool(tool) && kindOf(tool).fades === true;
}

export function addMark(mark: Mark): void {
  update({ live: [] });
  const there = marks().find((m) => m.kind === mark.kind);
  const joined = there && kindOf(mark).joined?.(there, mark);
  if (joined) {
    replaceMarks([joined.mark], joined.label);
    update({ selection: [joined.mark.id] });
    return;
  }
  const { standsOut } = useStyles.getState()[mark.kind];
  const [seen = mark] = standingOut([edged(mark, standsOut)]);
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

/** A setting of the strip: for the selected marks, else for the tool; either way remembered. */
export function setStyle(change: Partial<Style>): void {
  const chosen = unlocked();
  const { tool } = session();
  const names = chosen.length ? chosen.map((m) => m.kind) : isMarkTool(tool) ? [tool] : [];
  for (const name of new Set(names)) rememberStyle(name, change);
  if (chosen.length === 0) return;
  // One shot counts one way, for example: what is set on one number is set on all.
  const all = new Set(
    chosen.flatMap((m) => (kindOf(m).common?.some((field) => field in change) ? m.kind : [])),
  );
  const meant = all.size ? marks().filter((m) => all.has(m.kind) || chosen.includes(m)) : chosen;
  const { standsOut } = change;
  const changed = meant.map((mark) =>
    edged(faded(kindOf(mark).restyle(mark, change), change.opacity), standsOut),
  );
  const fields = Object.keys(change).join();
  replaceMarks(changed, 'Change the look', `style ${fields} ${changed.map((m) => m.id).join()}`);
}

/** Kinds that are nothing without their words are typed into as soon as they are there. */
export const opensAtOnce = (mark: Mark): boolean => kindOf(mark).words?.atOnce === true;

/** Opens the field for a mark's words; a new one is not in the document until it holds some. */
export function beginWords(mark: Mark, isNew: boolean): void {
  update({ editing: mark.id, live: isNew ? [mark] : [], selection: isNew ? [] : [mark.id] });
}

export function endWords(mark: Mark, words: string): void {
  const known = markById(mark.id);
  update({ editing: null, live: [] });
  const held = wordsOf(known ?? mark);
  if (!held) return;
  // Looked into and left as it was.
  if (known && held.read(known) === words && words.trim() !== '') return;
  const next = held.write(known ?? mark, words);
  if (opensAtOnce(mark) && words.trim() === '') {
    if (known) {
      select([mark.id]);
      deleteSelected();
    }
  } else if (known) replaceMarks([next], 'Change the words');
  else addMark(next);
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
