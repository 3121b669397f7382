import { z } from 'zod';
import type { Size } from '../../geometry/size';
import type { Piece } from './pieces';
import type { Part } from './contract';

const schema = z.strictObject({
  columns: z.int().min(2).max(12),
  /** Between two columns. */
  gap: z.int().min(0).max(400),
});
export type Fold = z.infer<typeof schema>;

export const fold: Part<typeof schema> = {
  label: 'Columns',
  schema,
  first: { columns: 2, gap: 24 },
};

/**
 * The columns that a long picture is cut into, from left to right; the last may be shorter. As many
 * as asked for, or as there are rows.
 * @param rim what is around each of them
 */
export function columnsOf(size: Size, { columns, gap }: Fold, rim: number): Piece[] {
  const height = Math.ceil(size.height / columns);
  const step = size.width + 2 * rim + gap;
  return Array.from({ length: Math.ceil(size.height / height) }, (_, i) => ({
    source: {
      x: 0,
      y: i * height,
      width: size.width,
      height: Math.min(height, size.height - i * height),
    },
    at: { x: rim + i * step, y: rim },
  }));
}
