import { centre, type Rect } from '@/core/geometry/rect';
import type { MarkName } from '@/core/marks/registry';
import { addMark, makeMark } from './make';
import { select } from '../session/select';
import { beginWords, opensAtOnce } from './words';

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
