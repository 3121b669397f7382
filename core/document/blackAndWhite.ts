import { channelsOf } from '../finish/surround/background';
import type { MarkTools } from '../marks/contract';
import { hides, kindOf, markBounds, markSchema, type Mark } from '../marks/registry';

/** Levels of grey, 0–255, by which two colours must differ to be told apart on paper. */
const APART = 40;

/** The grey of a colour: luminance weights as W3C, Filter Effects Module Level 1, grayscale(). */
const greyOf = (hex: string): number => {
  const [r, g, b] = channelsOf(hex);
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};

/** How marks of a colour are told from those of another of nearly the same grey: plain, dashed or a letter. */
type Sign = string;

const colourOf = (mark: Mark): string | null =>
  mark.off || hides(mark.kind) ? null : (kindOf(mark).styleOf(mark).colour ?? null);

const canDash = (mark: Mark): boolean => 'dashed' in mark && !mark.locked;

/** The sign of each colour, in the order in which they are used. */
function signsOf(marks: readonly Mark[]): Map<string, Sign> {
  const signs = new Map<string, Sign>();
  let letters = 0;
  for (const mark of marks) {
    const colour = colourOf(mark);
    if (colour === null || signs.has(colour)) continue;
    const alike = [...signs].filter(([c]) => Math.abs(greyOf(c) - greyOf(colour)) < APART);
    const own = marks.filter((other) => colourOf(other) === colour);
    const dashes = own.every(canDash) && !alike.some(([, sign]) => sign === 'dashed');
    if (alike.length === 0) signs.set(colour, 'plain');
    else if (dashes) signs.set(colour, 'dashed');
    else {
      signs.set(colour, String.fromCharCode(65 + (letters % 26)));
      letters += 1;
    }
  }
  return signs;
}

const SIZE = 18;

/** A letter at the upper left of a mark. */
function letterAt(mark: Mark, text: string, tools: MarkTools, id: string): Mark {
  const { x, y } = markBounds(mark, tools);
  return markSchema.parse({
    ...{ id, kind: 'text', x: Math.round(x), y: Math.round(y - SIZE * 1.3), width: SIZE * 2 },
    ...{ text, colour: '#000000', textSize: SIZE, bold: true, plate: '#FFFFFF' },
  });
}

/**
 * Marks as they are told apart without colour: those of a colour whose grey is nearly that of an
 * earlier one are dashed, or where that is not possible get a letter each.
 * @returns the marks, and what was done in words; empty where nothing was
 */
export function keptApart(
  marks: readonly Mark[],
  tools: MarkTools,
  newId: () => string,
): { marks: readonly Mark[]; said: string } {
  const signs = signsOf(marks);
  const added: Mark[] = [];
  let dashed = 0;
  const changed = marks.map((mark) => {
    const colour = colourOf(mark);
    const sign = colour === null ? 'plain' : (signs.get(colour) ?? 'plain');
    if (sign === 'plain') return mark;
    if (sign === 'dashed') {
      dashed += 1;
      return { ...mark, dashed: true } as Mark;
    }
    added.push(letterAt(mark, sign, tools, newId()));
    return mark;
  });
  const said = [
    dashed > 0 && `${dashed} dashed`,
    added.length > 0 && `${added.length} with a letter`,
  ].filter(Boolean);
  return { marks: [...changed, ...added], said: said.join(', ') };
}
