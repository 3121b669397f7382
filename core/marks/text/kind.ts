import { growth, rotated, storedAngle } from '../../geometry/mapping';
import { centre, contains, inflate, type Rect } from '../../geometry/rect';
import { roundedPath } from '../../drawing/paths';
import { fillText, type TextBlock } from '../../drawing/textLayout';
import { applyStyle, pick } from '../base';
import { LEAST, type MarkKind, type MarkTools } from '../contract';
import { rectFromPath } from '../shared/rectMark';
import { turnable } from '../shared/turnable';
import { layoutWords, shortened, sizedWords, wordSettings } from '../shared/words';
import { textSchema, type TextMark } from './schema';

const settings = ['colour', ...wordSettings, 'plate', 'padding'] as const;

/** Width of a text that was placed by a click instead of a drag, in ems. */
const CLICKED_WIDTH = 14;

const padding = (mark: TextMark): number => Math.round(mark.textSize * mark.padding);

const textBlock = (mark: TextMark, tools: MarkTools): TextBlock =>
  layoutWords(mark, tools, mark.width);

/** The plate: around the lines as they are, not the whole width they may take. */
function plateRect(mark: TextMark, tools: MarkTools): Rect {
  const block = textBlock(mark, tools);
  const words = { x: mark.x, y: mark.y, width: Math.max(block.width, 1), height: block.height };
  return inflate(words, padding(mark));
}

const uprightText: MarkKind<TextMark> = {
  kind: 'text',
  label: 'Text',
  group: 'Say',
  rank: 10,
  icon: 'M12 4v16M4 7V5a1 1 0 0 1 1-1h14a1 1 0 0 1 1 1v2M9 20h6',
  key: 't',
  first: { colour: '#1C2B2A' },
  contrast: { least: LEAST.words, ground: (mark) => mark.plate },
  schema: textSchema,
  blend: 'normal',
  fades: true,
  made: () => 'place',
  settings,
  create(id, path, style) {
    const dragged = rectFromPath(path);
    const wide = dragged.width >= style.textSize * 2;
    return {
      id,
      kind: 'text',
      x: dragged.x,
      y: dragged.y,
      width: wide ? dragged.width : style.textSize * CLICKED_WIDTH,
      text: '',
      colour: style.colour,
      ...pick(style, wordSettings),
      plate: style.plate,
      padding: style.padding,
    };
  },
  tooSmall: (mark) => mark.text.trim() === '',
  bounds: plateRect,
  hit: (mark, at, tolerance, tools) => contains(inflate(plateRect(mark, tools), tolerance), at),
  handles(mark, tools) {
    const plate = plateRect(mark, tools);
    return [
      {
        id: 'width',
        at: { x: mark.x + mark.width, y: plate.y + plate.height / 2 },
        role: 'resize',
      },
    ];
  },
  pull: (mark, handle, to) =>
    handle === 'width' ? { ...mark, width: Math.max(mark.textSize, to.x - mark.x) } : mark,
  move: (mark, by) => ({ ...mark, x: mark.x + by.x, y: mark.y + by.y }),
  // Words grow and turn, but are never stretched or mirrored.
  through(mark, map, tools) {
    const { x, y } = mark;
    const block = textBlock(mark, tools);
    const { angle: before = 0, ...upright } = mark;
    const words = { x, y, width: Math.max(block.width, 1), height: block.height };
    const middle = rotated(centre(words), mark, before);
    const by = growth(map, middle);
    const grown = {
      ...upright,
      textSize: sizedWords(mark.textSize, by),
      width: Math.max(8, mark.width * by),
    };
    const angle = storedAngle((map.mirrored ? -before : before) + (map.mirrored ? 0 : map.angle));
    const size = textBlock(grown, tools);
    const to = map.point(middle);
    const half = { x: Math.max(size.width, 1) / 2, y: size.height / 2 };
    const corner = rotated({ x: to.x - half.x, y: to.y - half.y }, to, angle);
    return { ...grown, ...corner, ...(angle !== 0 && { angle }) };
  },
  numbers: (mark) => [
    { id: 'x', label: 'Left', value: mark.x },
    { id: 'y', label: 'Top', value: mark.y },
    { id: 'width', label: 'Wrap at', value: mark.width },
  ],
  withNumber(mark, field, value) {
    if (field === 'x' || field === 'y') return { ...mark, [field]: value };
    return field === 'width' ? { ...mark, width: Math.max(8, value) } : mark;
  },
  restyle: applyStyle,
  styleOf: (mark) => pick(mark, settings),
  paint(surface, mark, tools) {
    if (mark.plate) {
      surface.fillStyle = mark.plate;
      surface.beginPath();
      roundedPath(surface, plateRect(mark, tools), mark.textSize * 0.25);
      surface.fill();
    }
    fillText(surface, textBlock(mark, tools), mark.x, mark.y, mark.colour);
  },
  words: {
    atOnce: true,
    read: (mark) => mark.text,
    write: (mark, text) => ({ ...mark, text }),
    field: (mark) => ({
      ...pick(mark, wordSettings),
      x: mark.x,
      y: mark.y,
      width: mark.width,
      padding: padding(mark),
      colour: mark.colour,
      ground: mark.plate,
    }),
  },
  describe: (mark) => shortened(mark.text) || 'empty',
};

/** Words on their own. They turn about where they begin, so that typing on does not shift them. */
export const text: MarkKind<TextMark> = turnable<TextMark>(uprightText, {
  pivot: ({ x, y }) => ({ x, y }),
  grip(mark, tools) {
    const plate = plateRect(mark, tools);
    return { at: { x: plate.x + plate.width, y: mark.y }, away: { x: 1, y: 0 } };
  },
});
