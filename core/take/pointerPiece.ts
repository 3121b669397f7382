import type { PointerPicture } from '../contracts/display';
import type { PointerShape } from '../marks/names';
import { MOST_SIDE, type PieceMark } from '../marks/piece/schema';
import { SHAPE_SIDE, shapeHotSpots, shapeNamed } from '../marks/piece/shapes';

const ID = 'pointer';

/** The pointer of a display as a piece, its hot spot where it pointed; null for one too large to hold. */
export function pointerPiece(pointer: PointerPicture): PieceMark | null {
  const { x, y, hotSpot, width, height, rgba, name } = pointer;
  if (width < 1 || height < 1 || width > MOST_SIDE || height > MOST_SIDE) return null;
  const shape = shapeNamed(name);
  return {
    id: ID,
    kind: 'piece',
    name: 'Pointer',
    x: x - hotSpot.x,
    y: y - hotSpot.y,
    width,
    height,
    hotSpot: { x: Math.min(1, hotSpot.x / width), y: Math.min(1, hotSpot.y / height) },
    ...(shape && { pointer: shape }),
    pixels: { width, height, rgba },
  };
}

/** A pointer of a known shape as a piece that points at a place. */
export function shapePiece(
  shape: PointerShape,
  at: { x: number; y: number },
  scale = 1,
): PieceMark {
  const hot = shapeHotSpots[shape];
  const side = SHAPE_SIDE * scale;
  return {
    id: ID,
    kind: 'piece',
    name: 'Pointer',
    x: at.x - hot.x * scale,
    y: at.y - hot.y * scale,
    width: side,
    height: side,
    hotSpot: { x: hot.x / SHAPE_SIDE, y: hot.y / SHAPE_SIDE },
    pointer: shape,
  };
}
