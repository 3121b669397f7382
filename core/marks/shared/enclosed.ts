import { readableOn } from '../../colour/colour';
import type { Rect } from '../../geometry/rect';
import type { MarkKind } from '../contract';
import type { Style } from '../style';
import { pick } from '../base';
import type { RectMark } from './rectMark';
import { wordSettings } from './words';
import type { Words } from './wordsField';

/** Space between the outline and the words inside. */
const MARGIN = 6;

/** Words in a box or oval: none at first, in the middle. */
export const wordsFromStyle = (style: Style) => ({
  text: '',
  ...pick(style, wordSettings),
  align: 'centre' as const,
});

/** Where words go; of an oval the rectangle inside it, 1 ÷ √2 of its size. */
export function wordsRect(mark: RectMark, share = 1): Rect {
  const width = mark.width * share - mark.outline - 2 * MARGIN;
  const height = mark.height * share;
  return {
    x: mark.x + (mark.width - width) / 2,
    y: mark.y + (mark.height - height) / 2,
    width: Math.max(0, width),
    height,
  };
}

/** Readable on the fill; without one, as the outline. */
export const wordsColour = (mark: RectMark): string =>
  mark.fill && mark.fillOpacity > 0.5 ? readableOn(mark.fill) : mark.colour;

/** Typing into a box or an oval. */
export const enclosedWords = <M extends RectMark & Words>(
  share: number,
): NonNullable<MarkKind<M & { id: string; kind: string }>['words']> => ({
  inside: true,
  read: (mark) => mark.text,
  write: (mark, text) => ({ ...mark, text }),
  field(mark) {
    const r = wordsRect(mark, share);
    return {
      ...pick(mark, wordSettings),
      ...r,
      width: Math.max(8, r.width),
      padding: 0,
      colour: wordsColour(mark),
      ground: mark.fill,
    };
  },
});
