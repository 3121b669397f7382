import { centre } from '../../geometry/rect';
import { ovalPath } from '../../drawing/paths';
import { pick } from '../base';
import { LEAST, type MarkKind } from '../contract';
import { enclosedWords, wordsColour, wordsFromStyle, wordsRect } from '../shared/enclosed';
import { rectKind } from '../shared/rectKind';
import { paintEnclosing, rectFromPath, rectStyle } from '../shared/rectMark';
import { aboutMiddle, turnable } from '../shared/turnable';
import { paintWordsIn } from '../shared/words';
import { ovalSchema, type OvalMark } from './schema';

const settings = [
  'colour',
  'outline',
  'fill',
  'fillOpacity',
  'dashed',
  'textSize',
  'bold',
] as const;

const uprightOval: MarkKind<OvalMark> = {
  ...rectKind<OvalMark>(),
  kind: 'oval',
  label: 'Oval',
  rank: 20,
  icon: 'M2 12a10 10 0 1 0 20 0a10 10 0 1 0 -20 0',
  key: 'o',
  contrast: { least: LEAST.mark },
  schema: ovalSchema,
  settings,
  create: (id, path, style) => ({
    id,
    kind: 'oval',
    ...rectFromPath(path),
    ...rectStyle(style),
    ...wordsFromStyle(style),
  }),
  hit(mark, at, tolerance) {
    const c = centre(mark);
    /** (x/a)² + (y/b)²: below 1 inside the oval whose half axes are grown by `by`. */
    const level = (by: number) => {
      const a = mark.width / 2 + by;
      const b = mark.height / 2 + by;
      if (a <= 0 || b <= 0) return Infinity;
      return ((at.x - c.x) / a) ** 2 + ((at.y - c.y) / b) ** 2;
    };
    const reach = mark.outline / 2 + tolerance;
    return level(reach) <= 1 && (mark.fill !== null || mark.text !== '' || level(-reach) >= 1);
  },
  styleOf: (mark) => pick(mark, settings),
  paint(surface, mark, tools) {
    paintEnclosing(surface, mark, () => ovalPath(surface, mark));
    paintWordsIn(surface, mark, wordsRect(mark, 0.7071), wordsColour(mark), tools);
  },
  words: enclosedWords(0.7071),
};

export const oval: MarkKind<OvalMark> = turnable<OvalMark>(uprightOval, aboutMiddle);
