import { distance, type Point } from '@/core/geometry/point';
import { kindOf, type MarkName } from '@/core/marks/registry';
import { addMark, makeMark } from './make';
import { session, update } from '../session/session';
import { isMarkTool } from '../session/tools';

const REACH = 10;

/** A mark made by several clicks gets one more corner; a click on the first closes it. */
export function addCorner(tool: MarkName, at: Point, scale: number): void {
  const { corners } = session();
  const [first] = corners;
  if (first && corners.length > 2 && distance(first, at) <= REACH / scale) {
    closeCorners();
    return;
  }
  const last = corners.at(-1);
  // The second click of a double click is no corner.
  if (last && distance(last, at) <= 2 / scale) return;
  show(tool, [...corners, at]);
}

function show(tool: MarkName, corners: readonly Point[]): void {
  update({ corners, live: corners.length > 1 ? [makeMark(tool, corners)] : [] });
}

/** Takes the last corner back. @returns false when there is none */
export function takeCornerBack(): boolean {
  const { corners, tool } = session();
  if (corners.length === 0 || !isMarkTool(tool)) return false;
  show(tool, corners.slice(0, -1));
  return true;
}

/** @returns false when nothing was being drawn */
export function closeCorners(): boolean {
  const { corners, tool } = session();
  if (corners.length === 0 || !isMarkTool(tool)) return false;
  const mark = makeMark(tool, corners);
  update({ corners: [], live: [] });
  if (!kindOf(mark).tooSmall(mark)) addMark(mark);
  return true;
}
