import type { ShotDocument } from '@/core/document/document';
import { startHistory, type History } from '@/core/document/history';
import type { Mark } from '@/core/marks/registry';
import { documentPart, type DocumentState } from './document';
import { liveAtFirst, livePart, type LiveState } from './live';
import { beginAnew } from './styles';
import { toolAtFirst, toolPart, type ToolState } from './tool';
import { viewAtFirst, viewPart, type ViewState } from './view';

/** All that is known of the shot that is open in Mark; views listen to one part of it each. */
export type Session = DocumentState & ToolState & LiveState & ViewState;

export type Opened = Omit<DocumentState, 'stored' | 'moment'> &
  Partial<Pick<DocumentState, 'stored' | 'moment'>>;

const parts = [documentPart, toolPart, livePart, viewPart];

export function openSession(opened: Opened): void {
  beginAnew();
  viewPart.open(viewAtFirst);
  livePart.open(liveAtFirst);
  toolPart.open(toolAtFirst);
  // Last: whether a shot is open is asked of this part.
  documentPart.open({ stored: { name: 'stored', at: null }, moment: null, ...opened });
}

export function closeSession(): void {
  parts.forEach((part) => part.close());
  whole = null;
}

/** The id of the shot that is open; null when none is. */
export const openId = (): string | null => documentPart.get()?.id ?? null;

/** True in a view while this shot is the open one. */
export const useIsOpen = (id: string): boolean =>
  documentPart.store(({ state }) => state?.id === id);

/** What was put together last, and of which states: asked for many times between two changes. */
let whole: { of: readonly unknown[]; session: Session } | null = null;

/** The open session. @throws when none is open: only views of an open shot may ask */
export function session(): Session {
  const document = documentPart.get();
  const tool = toolPart.get();
  const live = livePart.get();
  const view = viewPart.get();
  if (!document || !tool || !live || !view) throw new Error('No shot is open.');
  const of = [document, tool, live, view];
  if (whole && of.every((state, i) => state === whole?.of[i])) return whole.session;
  whole = { of, session: { ...document, ...tool, ...live, ...view } };
  return whole.session;
}

/** Changes what is known of the open shot, each part for itself. */
export const update = (change: Partial<Session>): void =>
  parts.forEach((part) => part.take(change));

/** All of the view is seen, and stays so. */
export const fitView = (): void => update({ camera: { ...session().camera, mode: 'fit' } });

export const freshHistory = (document: ShotDocument): History => startHistory(document);

/** The marks as they look now, with the live ones in place of their stored selves. */
export function shownMarks({ history, live }: Pick<Session, 'history' | 'live'>): readonly Mark[] {
  if (live.length === 0) return history.document.marks;
  const byId = new Map(live.map((mark) => [mark.id, mark]));
  const replaced = history.document.marks.map((mark) => {
    const now = byId.get(mark.id);
    byId.delete(mark.id);
    return now ?? mark;
  });
  return [...replaced, ...byId.values()];
}
