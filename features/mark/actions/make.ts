import type { StrokePoint } from '@/core/marks/contract';
import { kindOf, type Mark, type MarkName } from '@/core/marks/registry';
import { changeDocument } from '../session/changes';
import { update } from '../session/session';
import { useStyles } from '../session/styles';
import { newId } from '../session/newId';
import { standingOut } from '../recognise/standsOut';
import { marks, selectedMarks, select } from '../session/select';
import { faded, edged } from './restyle';
import { replaceMarks } from './change';

/** How the tool makes its marks, as it is set. */
export const madeBy = (name: MarkName) => kindOf(name).made(useStyles.getState()[name]);

/** A mark as the tool in hand would make it along a path; not in the document yet. */
export const makeMark = (name: MarkName, path: readonly StrokePoint[], id = newId()): Mark =>
  faded(
    kindOf(name).create(id, path, useStyles.getState()[name]),
    useStyles.getState()[name].opacity,
  );

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
