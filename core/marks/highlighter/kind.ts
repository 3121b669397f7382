import { pick } from '../base';
import type { MarkKind, StrokePoint } from '../contract';
import { strokeKind } from '../shared/strokeKind';
import { smoothPath, storedPoints } from '../shared/strokeMark';
import { alongTextLine } from './alongTextLine';
import { highlighterSchema, type HighlighterMark } from './schema';

const settings = ['colour', 'thickness', 'straight'] as const;

/** Along a line of text: from where it begins straight to under where it ends. */
function straightened(path: readonly StrokePoint[]): StrokePoint[] {
  const [first] = path;
  const last = path.at(-1);
  return first && last && path.length > 1 ? [first, { ...last, y: first.y }] : [...path];
}

/**
 * Tints what is below by multiplying the colours (W3C Compositing and Blending Level 1, §10.1):
 * black stays black, white takes the colour.
 */
export const highlighter: MarkKind<HighlighterMark> = {
  ...strokeKind<HighlighterMark>(),
  kind: 'highlighter',
  label: 'Highlighter',
  group: 'Draw',
  rank: 20,
  icon: 'M9 11l-6 6v3h9l3-3M22 12l-4.6 4.6a2 2 0 0 1-2.8 0l-5.2-5.2a2 2 0 0 1 0-2.8L14 4',
  key: 'h',
  first: { colour: '#F0E442', thickness: 24 },
  fit: alongTextLine,
  schema: highlighterSchema,
  blend: 'multiply',
  fades: true,
  settings,
  create: (id, path, style) => ({
    id,
    kind: 'highlighter',
    points: storedPoints(style.straight ? straightened(path) : path),
    colour: style.colour,
    thickness: style.thickness,
    straight: style.straight,
  }),
  styleOf: (mark) => pick(mark, settings),
  paint(surface, mark) {
    const [first] = mark.points;
    surface.save();
    surface.globalCompositeOperation = 'multiply';
    if (mark.points.length === 1 && first) {
      const half = mark.thickness / 2;
      surface.fillStyle = mark.colour;
      surface.fillRect(first[0] - half, first[1] - half, mark.thickness, mark.thickness);
    } else {
      surface.strokeStyle = mark.colour;
      surface.lineWidth = mark.thickness;
      surface.lineCap = 'butt';
      surface.lineJoin = 'round';
      surface.beginPath();
      smoothPath(surface, mark.points);
      surface.stroke();
    }
    surface.restore();
  },
  describe: (mark) => `${mark.thickness} px`,
};
