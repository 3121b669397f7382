import { create } from 'zustand';
import type { ShotDocument } from '@/core/document/document';
import type { Provenance } from '@/core/contracts/provenance';
import type { Shot } from '@/core/contracts/shot';
import type { Guide } from '@/core/geometry/arrange';
import type { Quad } from '@/core/geometry/homography';
import type { Point } from '@/core/geometry/point';
import type { Rail } from '@/core/geometry/rail';
import type { Rect } from '@/core/geometry/rect';
import type { Mark, MarkName } from '@/core/marks/registry';
import type { Candidate } from '@/core/trueUp/trueUp';
import type { Shaper } from '@/core/drawing/shaper';
import { startHistory, type History } from '@/core/document/history';
import type { Camera } from '../stage/camera';
import { beginAnew } from './styles';

/** Tools that make no mark. */
export type HandTool = 'grab' | 'crop' | 'turn' | 'words' | 'eraser' | 'measure' | 'colour';
export type Tool = HandTool | MarkName;

/** Where the shown version is: in this browser only, on its way, or on the server. */
export type StoredState =
  | { name: 'stored'; at: number | null }
  | { name: 'storing' }
  | { name: 'waiting'; why: string | null }
  | { name: 'stale'; current: Shot };

/** The shot that is open in Mark, and how it is looked at. */
export interface Session {
  id: string;
  title: string;
  /** The frame as it was taken. */
  frame: ImageBitmap;
  /** The frame as the view turns it; marks and view lie on this. */
  picture: ImageBitmap;
  provenance: Provenance;
  shaper: Shaper;
  history: History;
  /** Marks as they are under the pointer now, not a step yet; they stand in for those in the document. */
  live: readonly Mark[];
  selection: readonly string[];
  tool: Tool;
  /** The tool was chosen here, so Enter may make its mark; at first it is only the usual one. */
  chosen: boolean;
  /** The text that is typed into; painted by its field meanwhile. */
  editing: string | null;
  /** Corners clicked so far of a mark that is made by several clicks. */
  corners: readonly Point[];
  /** The frame that is drawn around marks to select them. */
  marquee: Rect | null;
  /** The straight edge or arc that strokes follow. */
  rail: Rail | null;
  /** What the last stroke may have been meant to be. */
  trueUp: { id: string; candidates: readonly Candidate[] } | null;
  /** Lines that what is moved has snapped to. */
  guides: readonly Guide[];
  /** What is measured now, from one place to another. */
  measured: readonly [Point, Point] | null;
  /** The colour picked last. */
  picked: string | null;
  /** Width ÷ height that the crop keeps; null lets it go. */
  cropRatio: number | null;
  /** The four corners in the frame while they are being pulled square. */
  squaring: Quad | null;
  /** The handles of a piece cut it instead of sizing it. */
  cutting: boolean;
  /** The view while Crop is in hand. */
  cropping: Rect | null;
  /** What is looked at meanwhile; more than the crop once that was pulled out. */
  cropSeen: Rect | null;
  /** A crop was drawn, pulled or typed: from then on a press inside moves it. */
  cropDrawn: boolean;
  camera: Camera;
  stored: StoredState;
}

export type Opened = Pick<
  Session,
  'id' | 'title' | 'frame' | 'picture' | 'provenance' | 'shaper' | 'history'
> & {
  stored?: StoredState;
};

interface Store {
  session: Session | null;
}

export const useMark = create<Store>(() => ({ session: null }));

export function openSession(opened: Opened): void {
  beginAnew();
  useMark.setState({
    session: {
      live: [],
      selection: [],
      tool: 'arrow',
      chosen: false,
      editing: null,
      corners: [],
      marquee: null,
      guides: [],
      rail: null,
      trueUp: null,
      measured: null,
      picked: null,
      cropRatio: null,
      cropping: null,
      cropSeen: null,
      cropDrawn: false,
      squaring: null,
      cutting: false,
      camera: { mode: 'fit', scale: 1, x: 0, y: 0 },
      stored: { name: 'stored', at: null },
      ...opened,
    },
  });
}

export const closeSession = (): void => useMark.setState({ session: null });

/** The open session. @throws when none is open: only views of an open shot may ask */
export function session(): Session {
  const { session: open } = useMark.getState();
  if (!open) throw new Error('No shot is open.');
  return open;
}

export function update(change: Partial<Session>): void {
  useMark.setState(({ session: open }) => ({ session: open && { ...open, ...change } }));
}

/** All of the view is seen, and stays so. */
export const fitView = (): void => update({ camera: { ...session().camera, mode: 'fit' } });

/** Reads a part of the open session in a view; views are only shown while one is open. */
export function useSession<T>(read: (session: Session) => T): T {
  return useMark((store) => {
    if (!store.session) throw new Error('No shot is open.');
    return read(store.session);
  });
}

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
