import { arrowStep, isArrow } from '@/core/region/selection';
import { useAction } from '../keys/useAction';
import { useEveryKey, useKey } from '../keys/useKey';
import { deleteSelected, nudge } from './actions/change';
import { chooseTool, selectAll } from './actions/chooseTool';
import { addInMiddle } from './actions/addInMiddle';
import { duplicateSelected } from './actions/make';
import { shiftInOrder } from './actions/order';
import { isSelectionSeen, select } from './session/select';
import { redo, undo } from './session/changes';
import { endCrop } from './fit/crop';
import { shownNow } from './stage/shown';
import { isMarkTool } from './session/tools';
import { zoomTo } from './session/camera';
import { closeCorners, takeCornerBack } from './actions/corners';
import { abandon, gestureGoesOn } from './gestures/hand';
import { usePointer } from './session/pointerStore';
import { toggleRail } from './fit/rail';
import type { Tool } from './session/tool';
import { fitView, session, update } from './session/session';
import { sizeBy } from './stage/sizeInHand';
import { trueUp } from './recognise/trueUp';
import { openNeighbour } from './neighbours';
import { stepFinishing } from './fit/finishing';
import { endSquaring } from './fit/turning';
import { stopLooking, usePrivate } from './recognise/privateStore';
import { stopWords, useWordsOut } from './recognise/wordsOut';

/** The keys of Mark; they rest while a field has the focus. */
export function useMarkKeys(): void {
  // While the pointer draws or drags, only Esc means something: a tool changed then loses the stroke.
  useEveryKey((event) => gestureGoesOn() && event.key !== 'Escape');
  useAction('mark.undo', undo);
  useAction('mark.redo', redo);
  useKey('mod+shift+z', redo);
  useAction('mark.duplicate', duplicateSelected);
  useAction('mark.rail', toggleRail);
  useAction('mark.trueUp', () => trueUp());
  useAction('mark.all', selectAll);
  useAction('mark.delete', () => {
    if (!takeCornerBack()) deleteSelected();
  });
  useKey([...arrows, ...arrows.map((key) => `shift+${key}`)], (event) => {
    if (!isArrow(event.key)) return false;
    if (session().tool === 'finish' && session().selection.length === 0) {
      stepFinishing(['ArrowRight', 'ArrowDown'].includes(event.key) ? 1 : -1);
      return true;
    }
    if (!isSelectionSeen()) return false;
    nudge(arrowStep(event.key, event.shiftKey ? 10 : 1));
  });
  useAction('mark.forward', () => session().selection.forEach((id) => shiftInOrder(id, 1)));
  useAction('mark.back', () => session().selection.forEach((id) => shiftInOrder(id, -1)));
  useAction('mark.thicker', () => sizeBy(1));
  useAction('mark.thinner', () => sizeBy(-1));
  useAction('mark.fit', fitView);
  useAction('mark.actual', () => zoom(() => 1));
  useAction('mark.closer', () => zoom((scale) => scale * 1.5));
  useAction('mark.further', () => zoom((scale) => scale / 1.5));
  useAction('mark.older', () => void openNeighbour('older'));
  useAction('mark.newer', () => void openNeighbour('newer'));
  useKey('enter', enter);
  useKey('escape', escape);
}

function zoom(next: (scale: number) => number): void {
  const { camera, size } = usePointer.getState();
  update({ camera: zoomTo(camera, next(camera.scale), size) });
}

const arrows = ['arrowleft', 'arrowright', 'arrowup', 'arrowdown'];

/** What is being made is done; with nothing begun, the tool in hand makes its mark. */
function enter(): boolean {
  const { tool, squaring } = session();
  if (squaring) endSquaring(true);
  else if (tool === 'crop') endCrop(true);
  else if (!closeCorners()) return addByKey(tool);
  return true;
}

/** A tool that was chosen makes its mark, once: a second press must not lay another upon it. */
function addByKey(tool: Tool): boolean {
  const { chosen, selection } = session();
  const stage = document.activeElement?.matches('[data-home]') ?? false;
  if (!isMarkTool(tool) || selection.length > 0 || !(chosen || stage)) return false;
  addInMiddle(tool, shownNow());
  return true;
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
