/** What the fields of a caption stand for; what has no words leaves nothing. */
export interface CaptionFacts {
  title: string;
  /** Window and address. */
  where: string;
  /** Written as `{time:…}` asks, or as usual. */
  time: (form: string | undefined) => string;
  n: number;
  description: string;
}

export const captionFields = ['title', 'where', 'time', 'n', 'description'] as const;
export type CaptionField = (typeof captionFields)[number];

const FIELD = /\{(title|where|time|n|description)(?::([^{}]*))?\}/g;

/** The fields that a caption uses. */
export const fieldsIn = (text: string): ReadonlySet<CaptionField> =>
  new Set([...text.matchAll(FIELD)].map(([, name]) => name as CaptionField));

/**
 * A caption with its fields filled in; a field that has no words takes along what parts it from
 * what stands before it on its line: “ · ”, “ – ”, a comma. Other braces stay as they are.
 */
export function filledCaption(text: string, facts: CaptionFacts): string {
  const EMPTY = '\u0000';
  const filled = text.replace(FIELD, (_, name: CaptionField, form: string | undefined) => {
    const words = name === 'time' ? facts.time(form) : name === 'n' ? String(facts.n) : facts[name];
    return words.trim() === '' ? EMPTY : words;
  });
  if (!filled.includes(EMPTY)) return filled;
  return filled
    .replace(/[ \t]*[·–—|,;:-]?[ \t]*\u0000/g, EMPTY)
    .replace(/(^|\n)\u0000+[ \t]*[·–—|,;:-]?[ \t]*/g, '$1')
    .replaceAll(EMPTY, '');
}
