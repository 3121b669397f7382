import type { ViewShape } from '@/core/document/viewSchema';
import type { Provenance } from '@/core/contracts/provenance';
import type { Rect } from '@/core/geometry/rect';
import type { StillWindow } from './sources/contract';

/** What a person chose on a stilled picture. */
export interface Choice {
  crop: Rect;
  /** Of a window: all of its place, also what is beyond the picture. */
  place?: Rect;
  shape?: ViewShape;
  window?: StillWindow;
  /** What a part is, as its program told. */
  part?: string;
  /** What to know about it: a part of a window that is off the display. */
  remark?: string;
}

/** What is known of the chosen window or part. */
export const provenanceOf = ({
  window,
  part,
}: Choice): Pick<Provenance, 'windowTitle' | 'program' | 'part'> => ({
  ...(window && { windowTitle: window.title, program: window.program || undefined }),
  ...(part && { part }),
});
