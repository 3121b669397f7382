import type { Point } from '@/core/geometry/point';
import type { Grip } from '@/core/geometry/resize';
import type { Mark } from '@/core/marks/registry';
import { madeBy } from '../actions/make';
import { markById, select } from '../session/select';
import { beginWords } from '../actions/words';
import { addCorner, closeCorners } from '../actions/corners';
import { pickColour } from '../actions/handTools';
import type { HandTool } from '../session/tool';
import { session, update } from '../session/session';
import { markAt, wordsAt } from '../session/marksAt';
import type { Gesture, Moved, Press } from './contract';
import { drawingCrop, pullingCrop } from './crop';
import { drawing, round } from './draw';
import { erasing } from './erase';
import { levelling } from './level';
import { measuring } from './measure';
import { panning } from './pan';
import { pulling, pullingGroup } from './pull';
import { framingWords } from './readWords';
import { grabbing } from './select';
import { pullingShapePoint } from './shapePoint';
import { pullingCorner } from './square';

/** What the pointer is doing between down and up. */
let gesture: Gesture | null = null;

export const gestureGoesOn = (): boolean => gesture !== null;

/** What a press on the picture begins with each tool that makes no mark. */
const byTool: Record<HandTool, (press: Press) => Gesture | null> = {
  grab: grabbing,
  crop: drawingCrop,
  eraser: erasing,
  words: framingWords,
  turn: levelling,
  measure: measuring,
  colour({ at }) {
    void pickColour(at);
    return null;
  },
  // It is about the whole picture.
  finish: () => null,
};

const isHandTool = (tool: string): tool is HandTool => Object.hasOwn(byTool, tool);

/** The pointer goes down on the picture. */
export function pressOn(press: Press): void {
  const { tool, squaring } = session();
  if (squaring) return;
  if (tool !== 'crop') update({ trueUp: null });
  if (isHandTool(tool)) {
    gesture = byTool[tool](press);
    return;
  }
  const { at, scale } = press;
  const under = tool === 'text' ? markAt(at, scale) : undefined;
  if (under?.kind === 'text') {
    beginWords(under, false);
    return;
  }
  select([]);
  if (madeBy(tool) === 'points') addCorner(tool, round(at), scale);
  else gesture = drawing(tool, press);
}

export function pressHandle(mark: Mark, handle: string): void {
  gesture = pulling(mark, handle);
}

export function pressGroup(marks: readonly Mark[], handle: string): void {
  gesture = pullingGroup(marks, handle);
}

/** A corner of what is being pulled square. */
export function pressSquare(index: number): void {
  gesture = pullingCorner(index);
}

/** Something that lies over the picture is dragged; it is told where the pointer goes. */
export function pressOther(move: (screen: Point) => void): void {
  gesture = { move: ({ screen }) => move(screen) };
}

export function pressCrop(grip: Grip | 'move', from: Point): void {
  gesture = pullingCrop(grip, from);
}

export function pressShapePoint(index: number): void {
  gesture = pullingShapePoint(index);
}

export function startPan(screen: Point): void {
  gesture = panning(screen);
}

/** The pointer moves while down. */
export const moveTo = (moved: Moved): void => gesture?.move(moved);

/** The pointer goes up: what was live becomes a step. `scale`: screen pixels for one of the picture. */
export function releaseAll(scale = 1): void {
  const ended = gesture;
  gesture = null;
  ended?.end?.(scale);
}

/** Esc in the middle of a drag: as if it had never begun. */
export function abandon(): void {
  gesture?.abandon?.();
  gesture = null;
  update({ live: [], corners: [], marquee: null, guides: [], measured: null });
}

/** A double click closes a polygon, and opens what holds words. */
export function openUnder(at: Point, scale: number): void {
  if (closeCorners()) return;
  const mark = wordsAt(at, scale);
  const stored = mark && markById(mark.id);
  if (stored) beginWords(stored, false);
}
