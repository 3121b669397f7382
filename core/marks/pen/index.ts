import { z } from 'zod';
import { ovalPath } from '../../paint/paths';
import { baseShape } from '../base';
import type { MarkKind } from '../contract';
import { strokeKind } from '../shared/strokeKind';
import { smoothPath, storedPoints, strokeShape } from '../shared/strokeMark';

export const penSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('pen'),
  tip: z.literal('felt'),
  ...strokeShape,
});
export type PenMark = z.infer<typeof penSchema>;

/** The felt pen: an even line with round ends; a tap leaves a dot. */
export const pen: MarkKind<PenMark> = {
  ...strokeKind<PenMark>(),
  kind: 'pen',
  label: 'Pen',
  group: 'Draw',
  schema: penSchema,
  blend: 'normal',
  create: (id, path, style) => ({
    id,
    kind: 'pen',
    tip: 'felt',
    points: storedPoints(path),
    colour: style.colour,
    thickness: style.thickness,
  }),
  paint(surface, mark) {
    const [first] = mark.points;
    surface.beginPath();
    if (mark.points.length === 1 && first) {
      const r = mark.thickness / 2;
      ovalPath(surface, { x: first[0] - r, y: first[1] - r, width: 2 * r, height: 2 * r });
      surface.fillStyle = mark.colour;
      surface.fill();
      return;
    }
    surface.strokeStyle = mark.colour;
    surface.lineWidth = mark.thickness;
    surface.lineCap = 'round';
    surface.lineJoin = 'round';
    smoothPath(surface, mark.points);
    surface.stroke();
  },
  describe: (mark) => `felt, ${mark.thickness} px`,
};
