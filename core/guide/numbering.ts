import type { Disc, GuideItem } from '../contracts/guide';
import { written } from '../marks/number/counting';
import type { ShotDocument } from '../document/document';

/** The numbers of a shot, in the order in which they count. */
export const discsOf = ({ marks }: Pick<ShotDocument, 'marks'>): Disc[] =>
  marks.flatMap((mark) =>
    mark.kind === 'number' ? [{ counting: mark.counting, caption: mark.caption }] : [],
  );

/** A number as a guide has it. */
export interface GuideNumber {
  written: string;
  caption: string;
}

/** Which numbers of a guide a step has. */
export interface StepNumbers {
  first: number;
  last: number;
  /** Those in its picture; none where the step counts as a whole. */
  discs: readonly GuideNumber[];
}

/**
 * Counts through a guide: each number in a picture is one, a picture without any is one itself. What
 * has no picture any more is not counted, so that the numbers close up.
 * @param discs those of a shot; undefined where the shot is not there
 */
export function numbersOf(
  items: readonly GuideItem[],
  discs: (shot: string) => readonly Disc[] | undefined,
): Map<string, StepNumbers> {
  const all = new Map<string, StepNumbers>();
  let next = 1;
  for (const item of items) {
    const own = item.kind === 'step' ? discs(item.shot) : undefined;
    if (!own) continue;
    const first = next;
    next += Math.max(1, own.length);
    all.set(item.id, {
      first,
      last: next - 1,
      discs: own.map(({ counting, caption }, i) => ({
        written: written(first + i, counting),
        caption,
      })),
    });
  }
  return all;
}

/** As it is said: 6, or 4–5. */
export const spanOf = ({ first, last }: StepNumbers): string =>
  first === last ? String(first) : `${first}–${last}`;

/** A caption in which {1} is the first number in its picture, as the guide counts it. */
export const withNumbers = (caption: string, { discs }: StepNumbers): string =>
  caption.replace(/\{(\d{1,4})\}/g, (field, nth: string) => {
    const disc = discs[Number(nth) - 1];
    return disc ? disc.written : field;
  });
