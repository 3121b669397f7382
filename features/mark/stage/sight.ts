import type { ViewShape, Turn } from '@/core/document/viewSchema';
import type { Surface } from '@/core/drawing/surface';
import type { Rect } from '@/core/geometry/rect';
import type { PaintTools } from '@/core/marks/contract';
import type { Mark } from '@/core/marks/registry';
import { PaintScene } from '@/core/paint/scene';
import type { HeldPictures } from '@/core/values/heldPicture';
import type { Camera } from '../session/camera';

/** What is to be seen. */
export interface Sight {
  picture: ImageBitmap;
  /** A filter of the browser that it is seen through; empty for none. */
  filter: string;
  /** Draws it so; the same function for the same picture and filter. */
  drawFrame: (this: void, surface: Surface) => void;
  marks: readonly Mark[];
  /** The part of the frame that is shown; nothing is painted outside. */
  view: Rect;
  /** The crop of the frame within the view, and the colour of the room beside it; null for no room. */
  room: { crop: Rect; colour: string | null } | null;
  /** Within the view only this is shown. */
  shape: ViewShape | undefined;
  turn: Turn | undefined;
  pictures: HeldPictures | undefined;
  camera: Camera;
  width: number;
  height: number;
  /** Device pixels for one pixel of the page. */
  dots: number;
  /** The one mark that is being changed, if any. */
  active: string | null;
  tools: PaintTools;
  /** Smooth scaling of the frame; rough while the sight still changes, which is much faster. */
  fine: boolean;
  /** The marks have not changed for a moment. */
  settled: boolean;
}

/** Where the active mark lies among the others; −1 while it is not among them yet. */
export const cutAt = ({ active, marks }: Sight): number =>
  active === null ? -1 : marks.findIndex((mark) => mark.id === active);

/** The scene as it is seen: live marks in place of their stored selves. */
export function sceneOfSight(sight: Sight, live: readonly Mark[]) {
  const { marks, view, shape, turn, pictures, drawFrame: draw, tools } = sight;
  const now = new Map(live.map((mark) => [mark.id, mark]));
  const known = new Set(marks.map(({ id }) => id));
  const shown = [
    ...marks.map((mark) => now.get(mark.id) ?? mark),
    ...live.filter(({ id }) => !known.has(id)),
  ];
  return new PaintScene({
    marks: shown,
    view: { crop: view, ...(shape && { shape }), ...(turn && { turn }) },
    pictures,
    drawFrame: draw,
    tools,
    moving: new Set([...now.keys(), ...(sight.active === null ? [] : [sight.active])]),
  });
}

export function sameLook(a: Sight, b: Sight): boolean {
  return (
    a.picture === b.picture &&
    a.filter === b.filter &&
    activeAmong(a) === activeAmong(b) &&
    a.view === b.view &&
    a.room === b.room &&
    a.shape === b.shape &&
    a.turn === b.turn &&
    a.width === b.width &&
    a.height === b.height &&
    a.dots === b.dots &&
    a.fine === b.fine &&
    sameCamera(a, b)
  );
}

const sameCamera = ({ camera: a }: Sight, { camera: b }: Sight): boolean =>
  a.x === b.x && a.y === b.y && a.scale === b.scale;

const activeAmong = (sight: Sight): string | null => (cutAt(sight) < 0 ? null : sight.active);

/** True while the camera moves over what is otherwise the same sight. */
export const onlyMoved = (from: Sight, to: Sight): boolean =>
  !to.fine &&
  !sameCamera(from, to) &&
  from.marks === to.marks &&
  sameLook({ ...from, fine: to.fine, camera: to.camera }, to);
