import { readableOn } from '../../colour/colour';
import { growth } from '../../geometry/mapping';
import { add, distance, distanceToSegment, type Point } from '../../geometry/point';
import { inflate, union, type Rect } from '../../geometry/rect';
import { ovalPath, roundedPath } from '../../drawing/paths';
import type { Surface } from '../../drawing/surface';
import { fillText, layoutText, type TextBlock } from '../../drawing/textLayout';
import { applyStyle, pick } from '../base';
import { LEAST, type MarkKind, type MarkTools } from '../contract';
import { countedOn, written } from './counting';
import { numberSchema, type NumberMark } from './schema';

const settings = ['colour', 'rim', 'size', 'counting', 'first'] as const;
const LINE = 0.09;

const disc = (mark: NumberMark): Rect => ({
  x: mark.at.x - mark.size / 2,
  y: mark.at.y - mark.size / 2,
  width: mark.size,
  height: mark.size,
});

/** The caption stands on a plate beside the disc. */
function caption(
  mark: NumberMark,
  { shaper }: MarkTools,
): { block: TextBlock; plate: Rect } | null {
  if (mark.caption === '') return null;
  const size = Math.max(8, mark.size * 0.45);
  const block = layoutText(shaper, mark.caption, { face: 'plain', weight: 400, size });
  const x = mark.at.x + mark.size * 0.62;
  const y = mark.at.y - block.height / 2;
  return { block, plate: { x, y, width: block.width + size, height: block.height } };
}

function bounds(mark: NumberMark, tools: MarkTools): Rect {
  const parts = [inflate(disc(mark), mark.size * 0.08)];
  if (mark.target) parts.push(inflate({ ...mark.target, width: 0, height: 0 }, mark.size * 0.3));
  const words = caption(mark, tools);
  if (words) parts.push(words.plate);
  return inflate(union(parts), 1);
}

/** A running number in a disc, with a line to what it speaks of and a caption where wanted. */
export const number: MarkKind<NumberMark> = {
  kind: 'number',
  label: 'Number',
  group: 'Point',
  rank: 30,
  icon: 'M4 9L20 9M4 15L20 15M10 3L8 21M16 3L14 21',
  key: 'n',
  anew: ['first'],
  common: ['first', 'counting'],
  contrast: { least: LEAST.mark, ground: (mark) => mark.rim },
  tidy: countedOn,
  schema: numberSchema,
  blend: 'normal',
  fades: true,
  made: () => 'drag',
  settings,
  create(id, path, style) {
    const from = path[0] ?? { x: 0, y: 0 };
    const to = path.at(-1) ?? from;
    const pulled = distance(from, to) > style.size;
    return {
      id,
      kind: 'number',
      // Pulled out, the number stands where the pull ends and points back to where it began.
      at: pulled ? { x: to.x, y: to.y } : { x: from.x, y: from.y },
      target: pulled ? { x: from.x, y: from.y } : null,
      value: style.first,
      caption: '',
      ...pick(style, settings),
    };
  },
  tooSmall: () => false,
  bounds,
  hit(mark, at, tolerance, tools) {
    if (distance(mark.at, at) <= mark.size / 2 + tolerance) return true;
    const near = (mark.size * LINE) / 2 + tolerance;
    if (mark.target && distanceToSegment(at, mark.at, mark.target) <= near) return true;
    const words = caption(mark, tools)?.plate;
    return words
      ? at.x >= words.x &&
          at.x < words.x + words.width &&
          at.y >= words.y &&
          at.y < words.y + words.height
      : false;
  },
  handles: (mark) => [
    { id: 'target', at: mark.target ?? add(mark.at, { x: 0, y: mark.size * 0.8 }), role: 'end' },
  ],
  pull(mark, handle, to) {
    if (handle !== 'target') return mark;
    // Pushed back into the disc the line is gone.
    const target = distance(to, mark.at) < mark.size * 0.6 ? null : { x: to.x, y: to.y };
    return { ...mark, target };
  },
  move: (mark, by) => ({
    ...mark,
    at: add(mark.at, by),
    target: mark.target && add(mark.target, by),
  }),
  through: (mark, map) => ({
    ...mark,
    at: map.point(mark.at),
    target: mark.target && map.point(mark.target),
    size: Math.min(400, Math.max(10, mark.size * growth(map, mark.at))),
  }),
  numbers: (mark) => [
    { id: 'x', label: 'Middle x', value: mark.at.x },
    { id: 'y', label: 'Middle y', value: mark.at.y },
  ],
  withNumber: (mark, field, value) =>
    field === 'x' || field === 'y' ? { ...mark, at: { ...mark.at, [field]: value } } : mark,
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, settings),
  paint(surface, mark, tools) {
    if (mark.target) paintLine(surface, mark, mark.target);
    const words = caption(mark, tools);
    if (words) {
      surface.fillStyle = mark.rim ?? '#FFFFFF';
      surface.beginPath();
      roundedPath(surface, words.plate, words.plate.height * 0.25);
      surface.fill();
      const ink = readableOn(
        mark.rim ?? '#FFFFFF',
        mark.colour === '#FFFFFF' ? '#000000' : undefined,
      );
      const pad = (words.plate.width - words.block.width) / 2;
      fillText(surface, words.block, words.plate.x + pad, words.plate.y, ink);
    }
    paintDisc(surface, mark, tools);
  },
  words: {
    read: (mark) => mark.caption,
    write: (mark, text) => ({ ...mark, caption: text.replace(/\s+/g, ' ').slice(0, 300) }),
    field: (mark) => ({
      x: mark.at.x + mark.size * 0.75,
      y: mark.at.y - mark.size * 0.3,
      width: mark.size * 8,
      textSize: Math.max(8, mark.size * 0.45),
      bold: false,
      face: 'plain',
      align: 'start',
      lineSpacing: 1.3,
      padding: 4,
      colour: '#1C2B2A',
      ground: '#FFFFFF',
    }),
  },
  describe: (mark) =>
    `${written(mark.value, mark.counting)}${mark.caption ? ` ${mark.caption.slice(0, 40)}` : ''}`,
};

function paintLine(surface: Surface, mark: NumberMark, target: Point): void {
  const end = mark.size * LINE * 1.6;
  for (const [colourOf, more] of [
    [mark.rim, 3],
    [mark.colour, 0],
  ] as const) {
    if (!colourOf) continue;
    surface.strokeStyle = colourOf;
    surface.fillStyle = colourOf;
    surface.lineWidth = mark.size * LINE + more;
    surface.lineCap = 'round';
    surface.beginPath();
    surface.moveTo(mark.at.x, mark.at.y);
    surface.lineTo(target.x, target.y);
    surface.stroke();
    const r = end + more / 2;
    surface.beginPath();
    ovalPath(surface, { x: target.x - r, y: target.y - r, width: 2 * r, height: 2 * r });
    surface.fill();
  }
}

function paintDisc(surface: Surface, mark: NumberMark, { shaper }: MarkTools): void {
  const r = disc(mark);
  if (mark.rim) {
    surface.fillStyle = mark.rim;
    surface.beginPath();
    ovalPath(surface, inflate(r, mark.size * 0.07));
    surface.fill();
  }
  surface.fillStyle = mark.colour;
  surface.beginPath();
  ovalPath(surface, r);
  surface.fill();
  const words = written(mark.value, mark.counting);
  const size = mark.size * (words.length < 3 ? 0.58 : 1.35 / words.length);
  const block = layoutText(shaper, words, { face: 'plain', weight: 700, size });
  const left = mark.at.x - block.width / 2;
  fillText(surface, block, left, mark.at.y - block.height / 2, readableOn(mark.colour));
}
