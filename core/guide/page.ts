import type { Guide, GuideShot } from '../contracts/guide';
import { numbersOf, spanOf, withNumbers, type GuideNumber } from './numbering';
import { readWords, type Block } from './words';

export type Part =
  | { kind: 'heading'; id: string; text: string }
  | {
      kind: 'step';
      id: string;
      shot: string;
      /** Where the numbers in its picture begin. */
      first: number;
      /** Of its heading: 2, or 3 below a heading. */
      depth: 2 | 3;
      /** Its numbers, as they are said: 6, or 4–5. */
      span: string;
      heading: string;
      caption: readonly Block[];
      numbers: readonly GuideNumber[];
      /** The alternative text of its picture. */
      alternative: string;
      /** It is a clip that is to move. */
      moves: boolean;
    };
export type StepPart = Extract<Part, { kind: 'step' }>;

/** A guide as it is written, whatever the format. */
export interface Page {
  title: string;
  parts: readonly Part[];
}

/** What is written of a guide; steps whose shot is not there are left out. */
export function pageOf(title: string, guide: Guide, all: readonly GuideShot[]): Page {
  const shots = new Map(all.filter(({ state }) => state === 'there').map((s) => [s.id, s]));
  const numbers = numbersOf(guide.items, (shot) => shots.get(shot)?.discs);
  let depth: 2 | 3 = 2;
  const parts = guide.items.flatMap((item): Part[] => {
    if (item.kind === 'heading') {
      const text = item.text.trim();
      if (text) depth = 3;
      return text ? [{ ...item, text }] : [];
    }
    const own = numbers.get(item.id);
    const shot = shots.get(item.shot);
    if (!own || !shot) return [];
    const heading = item.heading.trim() || shot.name;
    return [
      {
        ...{ kind: 'step', id: item.id, shot: item.shot, first: own.first, span: spanOf(own) },
        ...{ depth, heading },
        caption: [
          ...readWords(withNumbers(item.caption, own)),
          ...(guide.clips === 'link' && shot.clip?.link ? [playedAt(shot.clip.link)] : []),
        ],
        moves: guide.clips === 'moving' && shot.clip !== undefined,
        numbers: own.discs.filter(({ caption }) => caption !== ''),
        alternative:
          shot.description || heading || `${shot.clip ? 'Clip' : 'Picture'} of step ${spanOf(own)}`,
      },
    ];
  });
  return { title, parts };
}

/** The address is told itself, for those who read it on paper. */
const playedAt = (to: string): Block => ({
  kind: 'paragraph',
  of: [
    { kind: 'text', text: 'Play the clip: ' },
    { kind: 'link', to, of: [{ kind: 'text', text: to }] },
  ],
});

/** The heading of a step as it is written. */
export const stepHeading = ({ span, heading }: StepPart): string =>
  heading ? `${span} ${heading}` : `Step ${span}`;

/** From so many parts on there is a list of them. */
const MANY = 4;

export const hasContents = ({ parts }: Page): boolean => parts.length >= MANY;
