import { z } from 'zod';
import { limits } from '../../contracts/limits';
import { colour, coordinate } from '../../contracts/shapes';
import { text as storableText } from '../../contracts/text';
import { contains, inflate, type Rect } from '../../geometry/rect';
import { roundedPath } from '../../paint/paths';
import { fillText, layoutText, type TextBlock } from '../../paint/textLayout';
import { applyStyle, baseShape, pick } from '../base';
import type { MarkKind, MarkTools } from '../contract';
import { rectFromPath } from '../shared/rectMark';

export const textSchema = z.strictObject({
  ...baseShape,
  kind: z.literal('text'),
  /** Top left corner of the words; the plate reaches beyond it by the padding. */
  x: coordinate,
  y: coordinate,
  /** Lines wrap at this width. */
  width: z.number().min(8).max(limits.coordinate),
  text: storableText(limits.textLength),
  colour,
  textSize: z.number().min(6).max(400),
  bold: z.boolean().default(false),
  plate: colour.nullable().default(null),
});
export type TextMark = z.infer<typeof textSchema>;

const settings = ['colour', 'textSize', 'bold', 'plate'] as const;

/** Width of a text that was placed by a click instead of a drag, in ems. */
const CLICKED_WIDTH = 14;

/** Space between words and the edge of the plate, for a text size. */
export const platePadding = (textSize: number): number => Math.round(textSize * 0.4);

export const textFont = (mark: Pick<TextMark, 'textSize' | 'bold'>) => ({
  face: 'plain' as const,
  weight: mark.bold ? (700 as const) : (400 as const),
  size: mark.textSize,
});

export const textBlock = (mark: TextMark, { shaper }: MarkTools): TextBlock =>
  layoutText(shaper, mark.text, textFont(mark), mark.width);

/** The plate: around the lines as they are, not the whole width they may take. */
function plateRect(mark: TextMark, tools: MarkTools): Rect {
  const block = textBlock(mark, tools);
  const words = { x: mark.x, y: mark.y, width: Math.max(block.width, 1), height: block.height };
  return inflate(words, platePadding(mark.textSize));
}

export const text: MarkKind<TextMark> = {
  kind: 'text',
  label: 'Text',
  group: 'Say',
  schema: textSchema,
  blend: 'normal',
  made: 'place',
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
      textSize: style.textSize,
      bold: style.bold,
      plate: style.plate,
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
  describe: (mark) => mark.text.replace(/\s+/g, ' ').trim().slice(0, 40) || 'empty',
};
