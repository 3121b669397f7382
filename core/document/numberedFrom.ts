import type { ShotDocument } from './document';

/** A document whose numbers count on from another one, as in a guide. */
export function numberedFrom(document: ShotDocument, first: number): ShotDocument {
  let next = first;
  return {
    ...document,
    marks: document.marks.map((mark) =>
      mark.kind === 'number' ? { ...mark, first, value: next++ } : mark,
    ),
  };
}
