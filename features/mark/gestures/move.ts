import { snapToOthers } from '@/core/geometry/arrange';
import type { Point } from '@/core/geometry/point';
import { union } from '@/core/geometry/rect';
import { kindOf, markBounds, type Mark } from '@/core/marks/registry';
import { replaceMarks } from '../actions/change';
import { select, selectedMarks } from '../session/select';
import { changeDocument } from '../session/changes';
import { newId } from '../session/newId';
import { isSeenNow } from '../session/moment';
import { session, update } from '../session/session';
import { knownParts } from '../recognise/parts';
import { snapReach, type Gesture } from './contract';

/** The selected marks, or copies of them, go with the pointer. */
export function moving(start: Point, copies: boolean): Gesture {
  const held = selectedMarks().filter((mark) => !mark.locked);
  const marks = copies ? held.map((mark) => ({ ...mark, id: newId() })) : held;
  return {
    move: (moved) => moveTo(marks, start, moved.at, snapReach(moved)),
    end() {
      const { live } = session();
      update({ guides: [] });
      if (live.length === 0) return;
      if (copies) addCopies(live);
      else replaceMarks(live, 'Move');
    },
  };
}

/** Moves marks, snapping to the sides and middles of the others and of the picture. */
function moveTo(marks: readonly Mark[], start: Point, at: Point, reach: number): void {
  const { shaper, history } = session();
  const by = { x: Math.round(at.x - start.x), y: Math.round(at.y - start.y) };
  const place = (mark: Mark) => markBounds(mark, { shaper });
  const moved = new Set(marks.map((mark) => mark.id));
  const still = history.document.marks.filter(
    (mark) => !moved.has(mark.id) && !mark.off && isSeenNow(mark),
  );
  const others = [history.document.view.crop, ...still.map(place), ...knownParts()];
  const box = union(marks.map(place));
  const target = { ...box, x: box.x + by.x, y: box.y + by.y };
  const { by: on, guides } = snapToOthers(target, reach > 0 ? others : [], reach);
  const whole = { x: by.x + on.x, y: by.y + on.y };
  update({ live: marks.map((mark) => kindOf(mark).move(mark, whole)), guides });
}

function addCopies(copies: readonly Mark[]): void {
  update({ live: [] });
  changeDocument('Duplicate', (draft) => {
    draft.marks.push(...copies.map((mark) => ({ ...mark, locked: undefined })));
  });
  select(copies.map((mark) => mark.id));
}
