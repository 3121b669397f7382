import { arrowStep, isArrow } from '@/core/region/selection';
import { useAction } from '../keys/useAction';
import { useKey } from '../ui/useKeys';
import {
  chooseTool,
  deleteSelected,
  duplicateSelected,
  endCrop,
  marks,
  nudge,
  redo,
  select,
  shiftInOrder,
  undo,
} from './actions';
import { zoomTo } from './camera';
import { closeCorners, takeCornerBack } from './corners';
import { abandon, gestureGoesOn } from './gesture';
import { usePointer } from './pointerStore';
import { toggleRail } from './rail';
import { session, update } from './session';
import { trueUp } from './trueUp';
import { endSquaring } from './turning';
import { stopLooking, usePrivate } from './privateStore';
import { stopWords, useWordsOut } from './wordsOut';

/** The keys of Mark; they rest while a field has the focus. */
export function useMarkKeys(): void {
  useAction('mark.undo', undo);
  useAction('mark.redo', redo);
  useKey('mod+shift+z', redo);
  useAction('mark.duplicate', duplicateSelected);
  useAction('mark.rail', toggleRail);
  useAction('mark.trueUp', () => trueUp());
  useAction('mark.all', () => {
    chooseTool('grab');
    select(marks().flatMap((mark) => (mark.off || mark.locked ? [] : [mark.id])));
  });
  useAction('mark.delete', () => {
    if (!takeCornerBack()) deleteSelected();
  });
  useKey(
    'arrowleft,arrowright,arrowup,arrowdown,shift+arrowleft,shift+arrowright,shift+arrowup,shift+arrowdown',
    (event) => {
      if (isArrow(event.key)) nudge(arrowStep(event.key, event.shiftKey ? 10 : 1));
    },
  );
  useAction('mark.forward', () => session().selection.forEach((id) => shiftInOrder(id, 1)));
  useAction('mark.back', () => session().selection.forEach((id) => shiftInOrder(id, -1)));
  useAction('mark.fit', () => update({ camera: { ...session().camera, mode: 'fit' } }));
  useAction('mark.actual', () => zoom(() => 1));
  useAction('mark.closer', () => zoom((scale) => scale * 1.5));
  useAction('mark.further', () => zoom((scale) => scale / 1.5));
  useKey('enter', () => {
    if (session().squaring) endSquaring(true);
    else if (session().tool === 'crop') endCrop(true);
    else closeCorners();
  });
  useKey('escape', escape);
}

function zoom(next: (scale: number) => number): void {
  const { camera, size } = usePointer.getState();
  update({ camera: zoomTo(camera, next(camera.scale), size) });
}

/** One step out: of the drag, of Crop, of the selection, of the tool. */
function escape(): void {
  const { tool, selection, live, corners, measured, rail, squaring, cutting } = session();
  if (gestureGoesOn() || live.length || corners.length) abandon();
  else if (usePrivate.getState().search.name !== 'none') stopLooking();
  else if (useWordsOut.getState().out.name !== 'none') stopWords();
  else if (squaring) endSquaring(false);
  else if (cutting) update({ cutting: false });
  else if (tool === 'crop') endCrop(false);
  else if (measured) update({ measured: null });
  else if (rail) update({ rail: null });
  else if (selection.length) select([]);
  else chooseTool('grab');
}
