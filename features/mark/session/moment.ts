import { isSeenAt, withoutOthers } from '@/core/document/atPicture';
import type { ShotDocument } from '@/core/document/document';
import { hides, type Mark } from '@/core/marks/registry';
import type { Stretch } from '@/core/values/stretch';
import { documentPart, type DocumentState } from './document';

/** Of a clip: the picture that is marked, and what it is one of. */
export interface Moment {
  /** Its number, from 0. */
  picture: number;
  /** That picture as it was recorded. */
  recorded: ImageBitmap;
  /** When each picture of the clip comes, seconds. */
  times: readonly number[];
  /** Where something changes, numbers of pictures. */
  changes: readonly number[];
}

/** Whether a mark is seen on the picture that is open. */
export function isSeenNow(mark: Mark): boolean {
  const { moment } = documentPart.get() ?? {};
  return !moment || isSeenAt(mark, moment.picture);
}

let last: { document: ShotDocument; picture: number; shown: ShotDocument } | null = null;

/** What is shown of the open document: of a clip, what is seen on its picture. */
export function shownDocument({
  history: { document },
  moment,
}: Pick<DocumentState, 'history' | 'moment'>): ShotDocument {
  if (!moment) return document;
  const { picture } = moment;
  if (last?.document !== document || last.picture !== picture)
    last = { document, picture, shown: withoutOthers(document, picture) };
  return last.shown;
}

/** A mark is seen at least so long, seconds, where nothing else is said. */
const LEAST = 2;

/**
 * When a mark that is made now is seen: until what it points at changes. What hides does so all the
 * time, so that nothing is shown before or after.
 */
function timeOfNew(mark: Mark, { picture, times, changes }: Moment): Stretch | undefined {
  if (hides(mark)) return undefined;
  const soon = (times[picture] ?? 0) + LEAST;
  const to = changes.find((at) => (times[at] ?? 0) >= soon) ?? times.length;
  return { from: picture, to };
}

/** Gives the marks that are new in the document of a clip their time. */
export function timeNewMarks(before: ShotDocument, draft: ShotDocument): void {
  const { moment } = documentPart.get() ?? {};
  // A shot may have thousands of marks, and each that is looked at costs.
  if (!moment) return;
  const there = new Set(before.marks.map(({ id }) => id));
  for (const mark of draft.marks) {
    if (there.has(mark.id)) continue;
    const time = timeOfNew(mark, moment);
    if (time) mark.time = time;
    else delete mark.time;
  }
}
