import type { Point } from '@/core/geometry/point';
import { pullGrip, type Grip, isGrip } from '@/core/geometry/resize';
import { distance, snapDirection } from '@/core/geometry/point';
import { isSound, type Quad } from '@/core/geometry/homography';
import { snapTo } from '@/core/region/snap';
import { levelled } from '@/core/document/turnDocument';
import { snapToOthers } from '@/core/geometry/arrange';
import { rectFromPoints, union, type Rect } from '@/core/geometry/rect';
import type { StrokePoint } from '@/core/marks/contract';
import { kindOf, markBounds, type Mark } from '@/core/marks/registry';
import {
  beginWords,
  madeBy,
  markById,
  replaceMarks,
  select,
  selectedMarks,
} from '../actions/actions';
import { changeDocument } from '../session/changes';
import { drawCrop, isCropTooSmall, setCropping, setShape, showCropping } from '../fit/crop';
import { pan } from '../stage/camera';
import { addCorner, closeCorners } from '../actions/corners';
import { drawn, finishDrawing, round, startDrawing, type Drawing } from './drawing';
import { groupOf, pulledGroup, type Group } from '../actions/group';
import { erase, pickColour } from '../actions/handTools';
import { newId } from '../session/newId';
import { knownParts } from '../stage/parts';
import { session, update } from '../session/session';
import { currentTurn, setTurn } from '../fit/turning';
import { copyWordsOf } from '../recognise/wordsOut';
import { markAt, marksInside, wordsAt } from '../stage/under';

/** What the pointer is doing between down and up. */
type Gesture =
  | Drawing
  | { kind: 'move'; start: Point; marks: Mark[]; copies: boolean }
  | { kind: 'handle'; mark: Mark; handle: string }
  | { kind: 'group'; group: Group; handle: string }
  | { kind: 'level'; start: Point }
  | { kind: 'words'; start: Point }
  | { kind: 'corner'; index: number }
  | { kind: 'pan'; last: Point }
  | { kind: 'frame'; start: Point; adds: readonly string[] }
  | { kind: 'erase'; gone: Set<string> }
  | { kind: 'measure'; start: Point }
  | { kind: 'other'; move: (screen: Point) => void }
  | { kind: 'shape'; index: number }
  | { kind: 'crop'; grip: Grip | 'move'; start: Rect; from: Point }
  | { kind: 'cropDraw'; start: Rect; from: Point; drawn: boolean };

let gesture: Gesture | null = null;

export const gestureGoesOn = (): boolean => gesture !== null;

/** Pixels of the screen within which moved marks snap to others. */
const SNAP = 6;

/** The pointer goes down on the picture. */
export function pressOn(
  at: StrokePoint,
  screen: Point,
  scale: number,
  adds: boolean,
  copies = false,
): void {
  const { tool, selection, cropping, cropDrawn } = session();
  if (session().squaring) return;
  if (tool === 'crop') {
    if (cropping) gesture = { kind: 'cropDraw', start: cropping, from: at, drawn: cropDrawn };
    return;
  }
  update({ trueUp: null });
  if (tool === 'grab') {
    const mark = markAt(at, scale);
    if (!mark) {
      if (!adds) select([]);
      gesture = { kind: 'frame', start: at, adds: adds ? selection : [] };
      return;
    }
    const chosen = selection.includes(mark.id)
      ? adds
        ? selection.filter((id) => id !== mark.id)
        : selection
      : adds
        ? [...selection, mark.id]
        : [mark.id];
    select(chosen);
    const held = selectedMarks().filter((m) => !m.locked);
    const moved = copies ? held.map((mark) => ({ ...mark, id: newId() })) : held;
    gesture = { kind: 'move', start: at, marks: moved, copies };
    return;
  }
  if (tool === 'eraser') {
    gesture = { kind: 'erase', gone: new Set() };
    rub(gesture, at, scale);
    return;
  }
  if (tool === 'words') {
    gesture = { kind: 'words', start: at };
    return;
  }
  if (tool === 'turn') {
    gesture = { kind: 'level', start: at };
    return;
  }
  if (tool === 'measure') {
    gesture = { kind: 'measure', start: round(at) };
    update({ measured: null });
    return;
  }
  if (tool === 'colour') {
    void pickColour(at);
    return;
  }
  const under = tool === 'text' ? markAt(at, scale) : undefined;
  if (under?.kind === 'text') {
    beginWords(under, false);
    return;
  }
  select([]);
  if (madeBy(tool) === 'points') {
    addCorner(tool, round(at), scale);
    return;
  }
  gesture = startDrawing(tool, at, scale);
}

export function pressHandle(mark: Mark, handle: string): void {
  gesture = { kind: 'handle', mark, handle };
}

export function pressGroup(marks: readonly Mark[], handle: string): void {
  gesture = { kind: 'group', group: groupOf(marks), handle };
}

/** A corner of what is being pulled square. */
export function pressSquare(index: number): void {
  gesture = { kind: 'corner', index };
}

/** Something that lies over the picture is dragged; it is told where the pointer goes. */
export function pressOther(move: (screen: Point) => void): void {
  gesture = { kind: 'other', move };
}

export function pressCrop(grip: Grip | 'move', from: Point): void {
  const start = session().cropping;
  if (start) gesture = { kind: 'crop', grip, start, from };
}

export function pressShapePoint(index: number): void {
  gesture = { kind: 'shape', index };
}

export function startPan(screen: Point): void {
  gesture = { kind: 'pan', last: screen };
}

/** The pointer moves while down. `keep`: Shift; `free`: Alt, which lets go of snapping. */
export function moveTo(
  points: readonly StrokePoint[],
  screen: Point,
  keep: boolean,
  scale = 1,
  free = false,
): void {
  const at = points.at(-1);
  if (!gesture || !at) return;
  switch (gesture.kind) {
    case 'draw':
      update({ live: [drawn(gesture, points, { keep, free, scale })] });
      return;
    case 'move': {
      moveMarks(gesture, at, free ? 0 : SNAP / scale);
      return;
    }
    case 'handle': {
      const { mark, handle } = gesture;
      const { shaper } = session();
      update({ live: [kindOf(mark).pull(mark, handle, round(at), keep, { shaper })] });
      return;
    }
    case 'group':
      update({ live: pulledGroup(gesture.group, gesture.handle, at, keep) });
      return;
    case 'words':
      update({ marquee: rectFromPoints(gesture.start, at) });
      return;
    case 'level':
      update({ measured: [gesture.start, at] });
      return;
    case 'corner':
      pullSquare(gesture.index, at);
      return;
    case 'other':
      gesture.move(screen);
      return;
    case 'frame':
      surroundMarks(gesture, at);
      return;
    case 'erase':
      for (const point of points) rub(gesture, point, scale);
      return;
    case 'measure':
      update({
        measured: [gesture.start, keep ? snapDirection(gesture.start, at, 15) : round(at)],
      });
      return;
    case 'pan':
      update({
        camera: pan(session().camera, screen.x - gesture.last.x, screen.y - gesture.last.y),
      });
      gesture = { kind: 'pan', last: screen };
      return;
    case 'shape':
      pullShapePoint(gesture.index, at);
      return;
    case 'cropDraw':
      drawCrop(gesture.from, free ? at : snapTo(knownParts(), SNAP / scale)(at));
      return;
    case 'crop':
      setCropping(pulledCrop(gesture, at, keep, free ? 0 : SNAP / scale));
  }
}

/** Moves marks, snapping to the sides and middles of the others and of the picture. */
function moveMarks(g: Extract<Gesture, { kind: 'move' }>, at: Point, reach: number): void {
  const { shaper, history } = session();
  const by = { x: Math.round(at.x - g.start.x), y: Math.round(at.y - g.start.y) };
  const place = (mark: Mark) => markBounds(mark, { shaper });
  const moved = new Set(g.marks.map((mark) => mark.id));
  const still = history.document.marks.filter((mark) => !moved.has(mark.id) && !mark.off);
  const others = [history.document.view.crop, ...still.map(place), ...knownParts()];
  const box = union(g.marks.map(place));
  const target = { ...box, x: box.x + by.x, y: box.y + by.y };
  const { by: on, guides } = snapToOthers(target, reach > 0 ? others : [], reach);
  const whole = { x: by.x + on.x, y: by.y + on.y };
  update({ live: g.marks.map((mark) => kindOf(mark).move(mark, whole)), guides });
}

function finishMoving(g: Extract<Gesture, { kind: 'move' }>, live: readonly Mark[]): void {
  update({ guides: [] });
  if (!g.copies) {
    replaceMarks(live, 'Move');
    return;
  }
  update({ live: [] });
  changeDocument('Duplicate', (draft) => {
    draft.marks.push(...live.map((mark) => ({ ...mark, locked: undefined })));
  });
  select(live.map((mark) => mark.id));
}

function pullShapePoint(index: number, at: Point): void {
  const { history, picture } = session();
  const { shape } = history.document.view;
  if (shape?.kind !== 'polygon') return;
  const to = {
    x: Math.min(Math.max(at.x, 0), picture.width),
    y: Math.min(Math.max(at.y, 0), picture.height),
  };
  const points = shape.points.map((p, i) => (i === index ? to : p));
  setShape({ kind: 'polygon', points }, `shape ${index}`);
}

function pulledCrop(
  g: Extract<Gesture, { kind: 'crop' }>,
  at: Point,
  keep: boolean,
  reach: number,
): Rect {
  if (isGrip(g.grip)) {
    const to = reach > 0 ? snapTo(knownParts(), reach)(at) : at;
    return pullGrip(g.start, g.grip, to, keep || session().cropRatio !== null);
  }
  const { width, height } = session().picture;
  const x = g.start.x + at.x - g.from.x;
  const y = g.start.y + at.y - g.from.y;
  return {
    ...g.start,
    x: Math.min(Math.max(0, x), width - g.start.width),
    y: Math.min(Math.max(0, y), height - g.start.height),
  };
}

/** The pointer goes up: what was live becomes a step. `scale`: screen pixels for one of the picture. */
export function releaseAll(scale = 1): void {
  const ended = gesture;
  gesture = null;
  if (!ended) return;
  const { live } = session();
  if (ended.kind === 'draw') finishDrawing(ended, live[0], scale);
  else if (ended.kind === 'move' && live.length) finishMoving(ended, live);
  else if (ended.kind === 'handle' && live.length) replaceMarks(live, 'Reshape');
  else if (ended.kind === 'group' && live.length) replaceMarks(live, 'Size and turn several');
  else if (ended.kind === 'level') finishLevel();
  else if (ended.kind === 'words') finishWords();
  else if (ended.kind === 'erase') erase(ended.gone);
  else if (ended.kind === 'frame') update({ marquee: null });
  else if (ended.kind === 'crop') showCropping();
  else if (ended.kind === 'cropDraw') finishCropping(ended);
}

/** A press that hardly moved draws no crop: it is as it was. */
function finishCropping({ start, drawn: before }: Extract<Gesture, { kind: 'cropDraw' }>): void {
  const { cropping } = session();
  if (cropping && isCropTooSmall(cropping)) update({ cropping: start, cropDrawn: before });
}

function finishWords(): void {
  const { marquee } = session();
  update({ marquee: null });
  if (marquee && marquee.width > 3 && marquee.height > 3) void copyWordsOf(marquee);
}

/** The line that was drawn along what should be level, or upright, says how to turn. */
function finishLevel(): void {
  const { measured } = session();
  update({ measured: null });
  if (!measured) return;
  const [a, b] = measured;
  if (distance(a, b) < 8) return;
  const turn = currentTurn();
  setTurn({ ...turn, angle: levelled(turn, a, b) }, 'Level the picture');
}

function pullSquare(index: number, at: Point): void {
  const { squaring, frame } = session();
  if (!squaring) return;
  const to = {
    x: Math.min(Math.max(Math.round(at.x), 0), frame.width),
    y: Math.min(Math.max(Math.round(at.y), 0), frame.height),
  };
  const [a, b, c, d] = squaring;
  const all = [a, b, c, d].map((p, i) => (i === index ? to : p));
  const [p0 = a, p1 = b, p2 = c, p3 = d] = all;
  const next: Quad = [p0, p1, p2, p3];
  // Corners that would cross each other make no picture.
  if (isSound(next, 16)) update({ squaring: next });
}

/** Esc in the middle of a drag: as if it had never begun. */
export function abandon(): void {
  const { cropping } = session();
  if (gesture?.kind === 'crop' && cropping) setCropping(gesture.start);
  if (gesture?.kind === 'cropDraw') update({ cropping: gesture.start, cropDrawn: gesture.drawn });
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

/** Selects every mark that lies wholly inside the frame drawn so far. */
function surroundMarks(g: Extract<Gesture, { kind: 'frame' }>, at: Point): void {
  const marquee = rectFromPoints(g.start, at);
  const inside = marksInside(marquee).map((mark) => mark.id);
  update({ marquee, selection: [...new Set([...g.adds, ...inside])] });
}

/** Marks the eraser touches look gone at once; they go when the pointer comes up, in one step. */
function rub(g: Extract<Gesture, { kind: 'erase' }>, at: Point, scale: number): void {
  const under = markAt(at, scale, g.gone);
  if (!under) return;
  g.gone.add(under.id);
  update({ live: [...session().live, { ...under, off: true }] });
}
