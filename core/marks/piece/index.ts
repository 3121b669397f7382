import { z } from 'zod';
import { coordinate, extent } from '../../contracts/shapes';
import { contains, inflate } from '../../geometry/rect';
import { fromBase64 } from '../../raster/base64';
import { scaleSmoothly, type RgbaPixels } from '../../raster/pixels';
import { baseShape } from '../base';
import type { MarkKind, PaintTools } from '../contract';
import { moveRect, rectHandles, rectNumbers, rectTooSmall } from '../shared/rectMark';
import { pullGrip, isGrip } from '../../geometry/resize';
import type { Surface } from '../../paint/surface';
import {
  paintPointer,
  pointerShapeLabels,
  pointerShapes,
  SHAPE_SIDE,
  shapeHotSpots,
} from './shapes';

/** Pointers are small; larger pictures will have a place of their own. */
const MOST_SIDE = 128;

const pixelsSchema = z
  .strictObject({
    width: z.int().min(1).max(MOST_SIDE),
    height: z.int().min(1).max(MOST_SIDE),
    /** RGBA, row-major, not premultiplied, as base64. */
    rgba: z.string().max(Math.ceil((MOST_SIDE * MOST_SIDE * 4) / 3) * 4 + 4),
  })
  .refine(({ width, height, rgba }) => {
    if (!/^[A-Za-z0-9+/]*={0,2}$/.test(rgba)) return false;
    return Math.floor((rgba.replace(/=+$/, '').length * 3) / 4) === width * height * 4;
  }, 'the pixels do not fit the size');

export const pieceSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('piece'),
  x: coordinate,
  y: coordinate,
  width: extent,
  height: extent,
  /** The place of the piece that points, as parts of its width and height. */
  hotSpot: z.strictObject({ x: z.number().min(0).max(1), y: z.number().min(0).max(1) }),
  /** Drawn anew at any size, when it is a known one. */
  pointer: z.enum(pointerShapes).optional(),
  pixels: pixelsSchema.optional(),
});
export type PieceMark = z.infer<typeof pieceSchema>;

/** A picture lying loose on a shot: a pointer with the place that points. */
export const piece: MarkKind<PieceMark> = {
  kind: 'piece',
  label: 'Piece',
  group: 'Point',
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
  bounds: (mark) => inflate(mark, 2 + mark.width / 16),
  hit: (mark, at, tolerance) => contains(inflate(mark, tolerance), at),
  handles: rectHandles,
  // A piece keeps its proportions: pulled wide, a pointer is no pointer.
  pull: (mark, handle, to) =>
    isGrip(handle) ? sized({ ...mark, ...pullGrip(mark, handle, to, true) }) : mark,
  move: moveRect,
  numbers: (mark) => rectNumbers(mark).filter((field) => field.id !== 'height'),
  withNumber(mark, field, value) {
    if (field === 'x' || field === 'y') return { ...mark, [field]: value };
    if (field !== 'width') return mark;
    return sized({ ...mark, width: value, height: (value * mark.height) / mark.width });
  },
  restyle(mark, { pointer }) {
    if (!pointer) return mark;
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
  describe: (mark) =>
    mark.pointer ? `pointer, ${pointerShapeLabels[mark.pointer].toLowerCase()}` : 'pointer',
};

const sized = (mark: PieceMark): PieceMark => ({
  ...mark,
  width: Math.max(4, mark.width),
  height: Math.max(4, mark.height),
});

function paintPiece(surface: Surface, mark: PieceMark, tools: PaintTools): void {
  const { pixels } = mark;
  const natural = pixels?.width === Math.round(mark.width);
  if (pixels && (natural || !mark.pointer)) {
    const scaled = scaleSmoothly(
      unpack(pixels),
      Math.max(1, Math.round(mark.width)),
      Math.max(1, Math.round(mark.height)),
    );
    surface.drawImage(tools.bitmap(scaled), Math.round(mark.x), Math.round(mark.y));
  } else if (mark.pointer) {
    const at = {
      x: mark.x + mark.hotSpot.x * mark.width,
      y: mark.y + mark.hotSpot.y * mark.height,
    };
    paintPointer(surface, mark.pointer, at, mark.height / SHAPE_SIDE);
  }
}

const unpack = ({
  width,
  height,
  rgba,
}: {
  width: number;
  height: number;
  rgba: string;
}): RgbaPixels => ({
  width,
  height,
  data: new Uint8ClampedArray(fromBase64(rgba).buffer),
});
