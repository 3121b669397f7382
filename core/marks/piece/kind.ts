import type { Size } from '../../geometry/size';
import { growth, storedAngle } from '../../geometry/mapping';
import { bottom, centre, contains, inflate, right, type Rect } from '../../geometry/rect';
import { isGrip, pullGrip } from '../../geometry/resize';
import type { MarkKind } from '../contract';
import { moveRect, rectHandles, rectNumbers, rectTooSmall } from '../shared/rectMark';
import { aboutMiddle, turnable } from '../shared/turnable';
import { paintPiece } from './paint';
import { pointerShapeLabels, SHAPE_SIDE, shapeHotSpots } from './shapes';
import { pieceSchema, type PieceMark } from './schema';

/** Handles that cut a piece instead of sizing it are called by this and their grip. */
export const CUT = 'cut ';

/** The pictures of a pointer and of any other piece (see `MarkKind.icon`). */
const POINTER =
  'M4.037 4.688a.495.495 0 0 1 .651-.651l16 6.5a.5.5 0 0 1-.063.947l-6.124 1.58a2 2 0 0 0-1.438 1.435l-1.579 6.126a.5.5 0 0 1-.947.063z';
const PICTURE =
  'M5 3h14a2 2 0 0 1 2 2v14a2 2 0 0 1 -2 2h-14a2 2 0 0 1 -2 -2v-14a2 2 0 0 1 2 -2zM7 9a2 2 0 1 0 4 0a2 2 0 1 0 -4 0M21 15l-3.086-3.086a2 2 0 0 0-2.828 0L6 21';

const uprightPiece: MarkKind<PieceMark> = {
  kind: 'piece',
  label: 'Piece',
  group: 'Point',
  rank: 90,
  icon: POINTER,
  iconOf: (mark) => (mark.picture ? PICTURE : POINTER),
  pictures: (mark) => (mark.picture ? [mark.picture] : []),
  schema: pieceSchema,
  blend: 'normal',
  made: () => 'place',
  settings: ['pointer'],
  create: (id, path, style) => {
    const at = path[0] ?? { x: 0, y: 0 };
    const hot = shapeHotSpots[style.pointer];
    return {
      id,
      kind: 'piece',
      x: at.x - hot.x,
      y: at.y - hot.y,
      width: SHAPE_SIDE,
      height: SHAPE_SIDE,
      hotSpot: { x: hot.x / SHAPE_SIDE, y: hot.y / SHAPE_SIDE },
      pointer: style.pointer,
    };
  },
  tooSmall: rectTooSmall,
  bounds: (mark) => (mark.picture ? inflate(mark, 1) : inflate(mark, 2 + mark.width / 16)),
  hit: (mark, at, tolerance) => contains(inflate(mark, tolerance), at),
  handles: rectHandles,
  // A piece keeps its proportions: pulled wide, a pointer is no pointer.
  pull(mark, handle, to) {
    if (isGrip(handle)) return sized({ ...mark, ...pullGrip(mark, handle, to, true) });
    const grip = handle.slice(CUT.length);
    return handle.startsWith(CUT) && isGrip(grip) ? cutTo(mark, pullGrip(mark, grip, to)) : mark;
  },
  move: moveRect,
  through(mark, map) {
    const { angle: before = 0, ...upright } = mark;
    const c = centre(mark);
    const to = map.point(c);
    const by = growth(map, c);
    const [width, height] = [Math.max(4, mark.width * by), Math.max(4, mark.height * by)];
    const angle = storedAngle(map.mirrored ? -before : before + map.angle);
    const placed = { x: to.x - width / 2, y: to.y - height / 2, width, height };
    return { ...upright, ...placed, ...(angle !== 0 && { angle }) };
  },
  numbers: (mark) => [
    ...rectNumbers(mark).filter((field) => field.id !== 'height'),
    ...(mark.cut
      ? rectNumbers(mark.cut).map(({ id, label, value }) => ({
          id: `${CUT}${id}`,
          label: `Cut ${label.toLowerCase()}`,
          value,
        }))
      : []),
  ],
  withNumber(mark, field, value) {
    if (field === 'x' || field === 'y') return { ...mark, [field]: value };
    if (field.startsWith(CUT)) return withCutNumber(mark, field.slice(CUT.length), value);
    if (field !== 'width') return mark;
    return sized({ ...mark, width: value, height: (value * mark.height) / mark.width });
  },
  restyle(mark, { pointer }) {
    if (!pointer || mark.picture) return mark;
    const hot = shapeHotSpots[pointer];
    const at = {
      x: mark.x + mark.hotSpot.x * mark.width,
      y: mark.y + mark.hotSpot.y * mark.height,
    };
    const hotSpot = { x: hot.x / SHAPE_SIDE, y: hot.y / SHAPE_SIDE };
    const side = mark.height;
    const { pixels: _, ...rest } = mark;
    return {
      ...rest,
      pointer,
      hotSpot,
      width: side,
      height: side,
      x: at.x - hotSpot.x * side,
      y: at.y - hotSpot.y * side,
    };
  },
  styleOf: (mark) => (mark.pointer ? { pointer: mark.pointer } : {}),
  paint: paintPiece,
  describe(mark) {
    if (mark.picture) return `picture, ${Math.round(mark.width)} × ${Math.round(mark.height)} px`;
    const shape = mark.pointer && pointerShapeLabels[mark.pointer].toLowerCase();
    return shape ? `pointer, ${shape}` : 'pointer';
  },
};

/** A picture lying loose on a shot: a pointer with the place that points, or any pasted picture. */
export const piece: MarkKind<PieceMark> = turnable<PieceMark>(uprightPiece, aboutMiddle, true);

const sized = (mark: PieceMark): PieceMark => ({
  ...mark,
  width: Math.max(4, mark.width),
  height: Math.max(4, mark.height),
});

/** Shows so much of its picture as lies in `to`, which is in frame pixels and may reach too far. */
function cutTo(mark: PieceMark, to: Rect): PieceMark {
  const { cut, size } = mark;
  if (!cut || !size) return mark;
  const scale = mark.width / cut.width;
  const wanted = {
    x: cut.x + (to.x - mark.x) / scale,
    y: cut.y + (to.y - mark.y) / scale,
    width: to.width / scale,
    height: to.height / scale,
  };
  return withCut(mark, wanted);
}

/** The cut as whole pixels inside the picture; what stays to be seen does not move. */
function withCut(mark: PieceMark, wanted: Rect): PieceMark {
  const { cut, size } = mark;
  if (!cut || !size) return mark;
  const scale = mark.width / cut.width;
  const x = Math.min(Math.max(0, Math.round(wanted.x)), size.width - 1);
  const y = Math.min(Math.max(0, Math.round(wanted.y)), size.height - 1);
  const next = {
    x,
    y,
    width: Math.min(Math.max(Math.round(right(wanted)) - x, 1), size.width - x),
    height: Math.min(Math.max(Math.round(bottom(wanted)) - y, 1), size.height - y),
  };
  return {
    ...mark,
    cut: next,
    x: mark.x + (next.x - cut.x) * scale,
    y: mark.y + (next.y - cut.y) * scale,
    width: next.width * scale,
    height: next.height * scale,
  };
}

const withCutNumber = (mark: PieceMark, field: string, value: number): PieceMark =>
  mark.cut && field in mark.cut ? withCut(mark, { ...mark.cut, [field]: value }) : mark;

/** A new piece that shows a whole picture, its middle at a place. */
export function picturePiece(
  id: string,
  key: string,
  size: Size,
  middle: { x: number; y: number },
  scale: number,
): PieceMark {
  const [width, height] = [size.width * scale, size.height * scale];
  return {
    id,
    kind: 'piece',
    x: Math.round(middle.x - width / 2),
    y: Math.round(middle.y - height / 2),
    width,
    height,
    hotSpot: { x: 0, y: 0 },
    picture: key,
    size: { width: size.width, height: size.height },
    cut: { x: 0, y: 0, width: size.width, height: size.height },
  };
}
