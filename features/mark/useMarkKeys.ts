import { arrowStep, isArrow } from '@/core/region/selection';
import { useKey } from '../ui/useKeys';
import {
  chooseTool,
  deleteSelected,
  duplicateSelected,
  endCrop,
  nudge,
  redo,
  select,
  shiftInOrder,
  undo,
} from './actions';
import { zoomTo } from './camera';
import { abandon, gestureGoesOn } from './gesture';
import { usePointer } from './pointerStore';
import { session, update } from './session';
import { allTools } from './tools';

/** The keys of Mark; they rest while a field has the focus. */
export function useMarkKeys(): void {
  const letters = allTools.map((t) => t.hint.toLowerCase());
  useKey(letters.join(','), (event) => {
    const facts = allTools.find((t) => t.hint.toLowerCase() === event.key.toLowerCase());
    if (facts) chooseTool(facts.tool);
  });
  useKey('mod+z', undo);
  useKey('mod+shift+z,mod+y', redo);
  useKey('mod+d', duplicateSelected);
  useKey('delete,backspace', deleteSelected);
  useKey(
    'arrowleft,arrowright,arrowup,arrowdown,shift+arrowleft,shift+arrowright,shift+arrowup,shift+arrowdown',
    (event) => {
      if (isArrow(event.key)) nudge(arrowStep(event.key, event.shiftKey ? 10 : 1));
    },
  );
  useKey(']', () => session().selection.forEach((id) => shiftInOrder(id, 1)));
  useKey('[', () => session().selection.forEach((id) => shiftInOrder(id, -1)));
  useKey('0', () => update({ camera: { ...session().camera, mode: 'fit' } }));
  useKey('1', () => zoom(() => 1));
  useKey('+,=,shift&+', () => zoom((scale) => scale * 1.5), { joinedBy: '&' });
  useKey('-', () => zoom((scale) => scale / 1.5));
  useKey('enter', () => {
    if (session().tool === 'crop') endCrop(true);
  });
  useKey('escape', escape);
}

function zoom(next: (scale: number) => number): void {
  const { camera, size } = usePointer.getState();
  update({ camera: zoomTo(camera, next(camera.scale), size) });
}

/** One step out: of the drag, of Crop, of the selection, of the tool. */
function escape(): void {
  const { tool, selection, live } = session();
  if (gestureGoesOn() || live.length) abandon();
  else if (tool === 'crop') endCrop(false);
  else if (selection.length) select([]);
  else chooseTool('grab');
}
