import { inflate } from '../../geometry/rect';
import { applyStyle, pick } from '../base';
import { LEAST, type MarkKind } from '../contract';
import { strokeKind } from '../shared/strokeKind';
import { storedPoints, strokeExtent, strokeHit } from '../shared/strokeMark';
import { firstStrewn, stampLabels } from '../stamp/names';
import { strewReach } from './strew';
import { paintTip } from './tips';
import { penSchema, type PenMark } from './schema';

const settings = ['tip', 'strewn', 'colour', 'thickness'] as const;

/** Only what strews has something to strew. */
function withTip(mark: PenMark, stamp = mark.strewn): PenMark {
  const { strewn: _, ...bare } = mark;
  return mark.tip === 'strew' ? { ...bare, strewn: stamp ?? firstStrewn } : bare;
}

/** How far its paint reaches from its points, pixels. */
const reachOf = ({ tip, thickness }: PenMark): number =>
  tip === 'strew' ? strewReach(thickness) : thickness * 0.75 + 2;

/** A stroke by hand, stored as its points, so that tip and thickness can be changed at any time. */
export const pen: MarkKind<PenMark> = {
  ...strokeKind<PenMark>(),
  kind: 'pen',
  label: 'Pen',
  group: 'Draw',
  rank: 10,
  icon: 'M21.174 6.812a1 1 0 0 0-3.986-3.987L3.842 16.174a2 2 0 0 0-.5.83l-1.321 4.352a.5.5 0 0 0 .623.622l4.353-1.32a2 2 0 0 0 .83-.497zM15 5l4 4',
  key: 'p',
  contrast: { least: LEAST.mark },
  schema: penSchema,
  blend: 'normal',
  fades: true,
  settings,
  create: (id, path, style) =>
    withTip(
      {
        id,
        kind: 'pen',
        tip: style.tip,
        points: storedPoints(path),
        colour: style.colour,
        thickness: style.thickness,
      },
      style.strewn,
    ),
  bounds: (mark) => inflate(strokeExtent(mark), reachOf(mark)),
  hit: (mark, at, tolerance) =>
    strokeHit(mark, at, tolerance + (mark.tip === 'strew' ? mark.thickness : 0)),
  restyle: (mark, { strewn, ...style }) => withTip(applyStyle(mark, style), strewn),
  styleOf: (mark) => ({
    ...pick(mark, ['tip', 'colour', 'thickness']),
    strewn: mark.strewn ?? firstStrewn,
  }),
  paint: paintTip,
  describe: (mark) =>
    `${mark.strewn ? `strewn ${stampLabels[mark.strewn].toLowerCase()}` : mark.tip}, ${mark.thickness} px`,
};
