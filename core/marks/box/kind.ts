import { contains, inflate } from '../../geometry/rect';
import { roundedPath } from '../../drawing/paths';
import { pick } from '../base';
import { LEAST, type MarkKind } from '../contract';
import { enclosedWords, wordsColour, wordsFromStyle, wordsRect } from '../shared/enclosed';
import { rectKind } from '../shared/rectKind';
import { paintEnclosing, rectFromPath, rectStyle } from '../shared/rectMark';
import { aboutMiddle, turnable } from '../shared/turnable';
import { paintWordsIn } from '../shared/words';
import { boxSchema, type BoxMark } from './schema';

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
  rank: 10,
  icon: 'M5 3h14a2 2 0 0 1 2 2v14a2 2 0 0 1 -2 2h-14a2 2 0 0 1 -2 -2v-14a2 2 0 0 1 2 -2z',
  key: 'b',
  contrast: { least: LEAST.mark },
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
