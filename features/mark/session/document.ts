import type { Provenance } from '@/core/contracts/provenance';
import type { Shot } from '@/core/contracts/shot';
import type { History } from '@/core/document/history';
import type { Shaper } from '@/core/drawing/shaper';
import type { Moment } from './moment';
import { part } from './part';

/** Where the shown version is: in this browser only, on its way, or on the server. */
export type StoredState =
  | { name: 'stored'; at: number | null }
  | { name: 'storing' }
  | { name: 'waiting'; why: string | null }
  | { name: 'stale'; current: Shot };

/** The open shot: changes with each step of undo. */
export interface DocumentState {
  id: string;
  title: string;
  /** A person gave or confirmed it. */
  titleOwn: boolean;
  /** The frame as it was taken. */
  frame: ImageBitmap;
  /** The frame as the view turns it. */
  plain: ImageBitmap;
  /** The same as it is adjusted, if that is worked out; marks and view lie on this. */
  picture: ImageBitmap;
  provenance: Provenance;
  shaper: Shaper;
  history: History;
  stored: StoredState;
  /** Of a clip, the picture that is marked; null for a shot, which is one picture. */
  moment: Moment | null;
}

/** What belongs to it, with nothing left out. */
const names: Record<keyof DocumentState, true> = {
  ...{ id: true, title: true, titleOwn: true, frame: true, plain: true, picture: true },
  ...{ provenance: true, shaper: true, history: true, stored: true, moment: true },
};

export const documentPart = part<DocumentState>(Object.keys(names));
export const useDocument = documentPart.use;
