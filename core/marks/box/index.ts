import { z } from 'zod';
import { contains, inflate } from '../../geometry/rect';
import { roundedPath } from '../../drawing/paths';
import { seenShape, pick } from '../base';
import type { MarkKind } from '../contract';
import { enclosedWords, wordsColour, wordsFromStyle, wordsRect } from '../shared/enclosed';
import { rectKind } from '../shared/rectKind';
import { paintEnclosing, rectFromPath, rectShape, rectStyle } from '../shared/rectMark';
import { aboutMiddle, turnable, turnedShape } from '../shared/turnable';
import { paintWordsIn, wordsShape } from '../shared/words';

export const boxSchema = z.strictObject({
  ...seenShape,
  kind: z.literal('box'),
  ...rectShape,
  ...wordsShape,
  ...turnedShape,
  corner: z.number().min(0).max(500).default(0),
});
export type BoxMark = z.infer<typeof boxSchema>;

const settings = [
  'colour',
  'outline',
  'fill',
  'fillOpacity',
  'corner',
  'dashed',
  'textSize',
  'bold',
] as const;

const uprightBox: MarkKind<BoxMark> = {
  ...rectKind<BoxMark>(),
  kind: 'box',
  label: 'Box',
  schema: boxSchema,
  settings,
  create: (id, path, style) => ({
    id,
    kind: 'box',
    ...rectFromPath(path),
    ...rectStyle(style),
    ...wordsFromStyle(style),
    corner: style.corner,
  }),
  hit(mark, at, tolerance) {
    const reach = mark.outline / 2 + tolerance;
    if (!contains(inflate(mark, reach), at)) return false;
    const inner = inflate(mark, -reach);
    return (
      mark.fill !== null ||
      mark.text !== '' ||
      inner.width <= 0 ||
      inner.height <= 0 ||
      !contains(inner, at)
    );
  },
  styleOf: (mark) => pick(mark, settings),
  paint(surface, mark, tools) {
    paintEnclosing(surface, mark, () => roundedPath(surface, mark, mark.corner));
    paintWordsIn(surface, mark, wordsRect(mark), wordsColour(mark), tools);
  },
  words: enclosedWords(1),
};

export const box: MarkKind<BoxMark> = turnable<BoxMark>(uprightBox, aboutMiddle);
