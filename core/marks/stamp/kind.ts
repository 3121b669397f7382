import { contains, inflate, type Rect } from '../../geometry/rect';
import { growth, storedAngle } from '../../geometry/mapping';
import { isGrip, pullGrip } from '../../geometry/resize';
import { roundedPath } from '../../drawing/paths';
import type { Surface } from '../../drawing/surface';
import { fillText, layoutText } from '../../drawing/textLayout';
import { applyStyle, pick } from '../base';
import { LEAST, type MarkKind, type MarkTools } from '../contract';
import { moveRect, rectHandles, rectNumbers } from '../shared/rectMark';
import { aboutMiddle, turnable } from '../shared/turnable';
import { paintDrawing } from './paint';
import { stampLabels } from './names';
import { stampSchema, type StampMark } from './schema';

const settings = ['stamp', 'colour', 'size'] as const;

const middle = (r: Rect) => ({ x: r.x + r.width / 2, y: r.y + r.height / 2 });

function sized(mark: StampMark, side: number): StampMark {
  const c = middle(mark);
  const s = Math.min(Math.max(10, side), 400);
  return { ...mark, x: c.x - s / 2, y: c.y - s / 2, width: s, height: s };
}

/** A key cap grows with its words. */
function capRect(mark: StampMark, { shaper }: MarkTools): Rect {
  const size = mark.height * 0.46;
  const { width } = layoutText(shaper, mark.text || 'Esc', { face: 'plain', weight: 700, size });
  const wide = Math.max(mark.height, width + mark.height * 0.6);
  return { x: mark.x, y: mark.y, width: wide, height: mark.height };
}

const outlineOf = (mark: StampMark, tools: MarkTools): Rect =>
  mark.stamp === 'key' ? capRect(mark, tools) : mark;

const uprightStamp: MarkKind<StampMark> = {
  kind: 'stamp',
  label: 'Stamp',
  group: 'Say',
  rank: 30,
  icon: 'M14 13V8.5C14 7 15 7 15 5a3 3 0 0 0-6 0c0 2 1 2 1 3.5V13M20 15.5a2.5 2.5 0 0 0-2.5-2.5h-11A2.5 2.5 0 0 0 4 15.5V17a1 1 0 0 0 1 1h14a1 1 0 0 0 1-1zM5 22h14',
  key: 's',
  first: { size: 48 },
  contrast: { least: LEAST.mark },
  schema: stampSchema,
  blend: 'normal',
  fades: true,
  made: () => 'place',
  settings,
  create(id, path, style) {
    const at = path.at(-1) ?? { x: 0, y: 0 };
    const { size } = style;
    return {
      id,
      kind: 'stamp',
      stamp: style.stamp,
      x: at.x - size / 2,
      y: at.y - size / 2,
      width: size,
      height: size,
      colour: style.colour,
      text: style.stamp === 'key' ? 'Esc' : '',
    };
  },
  tooSmall: () => false,
  bounds: (mark, tools) => inflate(outlineOf(mark, tools), mark.height * 0.1 + 1),
  hit: (mark, at, tolerance, tools) => contains(inflate(outlineOf(mark, tools), tolerance), at),
  handles: rectHandles,
  pull: (mark, handle, to) => {
    if (!isGrip(handle)) return mark;
    const r = pullGrip(mark, handle, to, true);
    const side = Math.min(400, Math.max(10, r.width, r.height));
    return { ...mark, x: r.x, y: r.y, width: side, height: side };
  },
  move: moveRect,
  // A drawing stays square and is never mirrored.
  through(mark, map) {
    const { angle: before = 0, ...upright } = mark;
    const to = map.point(middle(mark));
    const side = Math.min(400, Math.max(10, mark.width * growth(map, middle(mark))));
    const angle = storedAngle(map.mirrored ? -before : before + map.angle);
    const placed = { x: to.x - side / 2, y: to.y - side / 2, width: side, height: side };
    return { ...upright, ...placed, ...(angle !== 0 && { angle }) };
  },
  numbers: (mark) => rectNumbers(mark).filter((field) => field.id !== 'height'),
  withNumber: (mark, field, value) =>
    field === 'x' || field === 'y'
      ? { ...mark, [field]: value }
      : field === 'width'
        ? sized(mark, value)
        : mark,
  restyle(mark, { size, ...style }) {
    const next = applyStyle(mark, style);
    const named = next.stamp === 'key' && next.text === '' ? { ...next, text: 'Esc' } : next;
    return size === undefined ? named : sized(named, size);
  },
  styleOf: (mark) => ({ ...pick(mark, ['stamp', 'colour']), size: mark.width }),
  paint(surface, mark, tools) {
    if (mark.stamp === 'key') paintCap(surface, mark, tools);
    else paintDrawing(surface, mark.stamp, mark);
  },
  words: {
    read: (mark) => mark.text,
    // Only a key cap bears words; a drawing stays what it is.
    holds: (mark) => mark.stamp === 'key',
    write: (mark, text) => ({
      ...mark,
      text: text.replace(/\s+/g, ' ').trim().slice(0, 40),
    }),
    field: (mark) => ({
      x: mark.x + mark.height * 0.3,
      y: mark.y + mark.height * 0.2,
      width: mark.height * 4,
      textSize: mark.height * 0.46,
      bold: true,
      face: 'plain',
      align: 'start',
      lineSpacing: 1.3,
      padding: 2,
      colour: '#1C2B2A',
      ground: '#FFFFFF',
    }),
  },
  describe: (mark) =>
    mark.stamp === 'key' ? `key ${mark.text}` : stampLabels[mark.stamp].toLowerCase(),
};

/** A small drawing: ticks, warnings, fingers, key caps. */
export const stamp: MarkKind<StampMark> = turnable<StampMark>(uprightStamp, aboutMiddle);

function paintCap(surface: Surface, mark: StampMark, tools: MarkTools): void {
  const r = capRect(mark, tools);
  const radius = mark.height * 0.18;
  surface.fillStyle = mark.colour;
  surface.beginPath();
  roundedPath(surface, inflate(r, mark.height * 0.05), radius);
  surface.fill();
  const top = { ...r, height: r.height * 0.84 };
  surface.fillStyle = '#FFFFFF';
  surface.beginPath();
  roundedPath(surface, top, radius * 0.8);
  surface.fill();
  const size = mark.height * 0.46;
  const font = { face: 'plain', weight: 700, size } as const;
  const block = layoutText(tools.shaper, mark.text || 'Esc', font);
  const x = top.x + (top.width - block.width) / 2;
  fillText(surface, block, x, top.y + (top.height - block.height) / 2, '#1C2B2A');
}
