import { sheetOf } from '@/core/document/view';
import { create } from 'zustand';
import { moveInside } from '@/core/geometry/rect';
import { privateThings, type PrivateThing } from '@/core/recognition/privateThings';
import { kindOf, type Mark } from '@/core/marks/registry';
import { messageOf } from '../../api/ask';
import { findPrivate } from '../../words/findPrivate';
import { Recogniser, Stopped } from '../../words/recogniser';
import { storedParagraphs } from '../../words/stored';
import { select } from '../session/select';
import { changeDocument } from '../session/changes';
import { newId } from '../session/newId';
import { shownDocument } from '../session/moment';
import { session } from '../session/session';
import { settledRevision } from '../session/storing';
import { useStyles } from '../session/styles';

/** Where the search for private things stands. Nothing of it is ever stored. */
export type Search =
  | { name: 'none' }
  | { name: 'reading'; share: number }
  | { name: 'failed'; why: string }
  | { name: 'found'; things: readonly PrivateThing[]; chosen: ReadonlySet<number> };

export type HideWith = 'cover' | 'blur' | 'blocks';

interface Store {
  search: Search;
}

export const usePrivate = create<Store>(() => ({ search: { name: 'none' } }));

const found = (things: readonly PrivateThing[]): Search => ({
  name: 'found',
  things,
  chosen: new Set(things.keys()),
});

let running: Recogniser | null = null;

/** Reads the shot's words and shows what looks private; hides nothing by itself. */
export async function lookForPrivate(): Promise<void> {
  stopLooking();
  const recogniser = new Recogniser();
  running = recogniser;
  const set = (search: Search) => {
    if (running === recogniser) usePrivate.setState({ search });
  };
  set({ name: 'reading', share: 0 });
  const { id, frame, moment } = session();
  const document = shownDocument(session());
  try {
    const sheet = sheetOf(document.view);
    // Of a clip the words of its first picture are known.
    const revision = moment ? null : settledRevision(id);
    const stored = await storedParagraphs(id, revision, sheet);
    if (stored) return set(found(privateThings(stored.flat())));
    const things = await findPrivate(recogniser, frame, document, (share) =>
      set({ name: 'reading', share }),
    );
    set(found(things));
  } catch (error) {
    if (!(error instanceof Stopped)) set({ name: 'failed', why: messageOf(error) });
  } finally {
    recogniser.end();
  }
}

/** Stops the search, or lets its findings go. */
export function stopLooking(): void {
  running?.end();
  running = null;
  usePrivate.setState({ search: { name: 'none' } });
}

export function chooseThing(index: number, on: boolean): void {
  const { search } = usePrivate.getState();
  if (search.name !== 'found') return;
  const chosen = new Set(search.chosen);
  if (on) chosen.add(index);
  else chosen.delete(index);
  usePrivate.setState({ search: { ...search, chosen } });
}

/** Hides all that is chosen, as one step. */
export function hideChosen(way: HideWith): void {
  const { search } = usePrivate.getState();
  if (search.name !== 'found') return;
  const sheet = sheetOf(session().history.document.view);
  const style = { ...useStyles.getState()[way], area: 'box' as const };
  const marks: Mark[] = search.things.flatMap((thing, i) => {
    if (!search.chosen.has(i)) return [];
    const { x, y, width, height } = moveInside(thing.box, sheet);
    const far = { x: x + width, y: y + height };
    return [kindOf(way).create(newId(), [{ x, y }, far], style)];
  });
  if (marks.length === 0) return;
  changeDocument('Hide private things', (draft) => {
    draft.marks.push(...marks);
  });
  select([]);
  stopLooking();
}
