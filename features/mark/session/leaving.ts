import type { ShotDocument } from '@/core/document/document';
import { captionTellsWhere, withCaption } from '@/core/keep/caption';
import { shownDocument } from './moment';
import { session } from './session';

/**
 * The open shot, or a document of it, with the words of its caption.
 * @param origin whether the caption may tell where it is from
 */
export function leavingDocument(
  origin = false,
  document: ShotDocument = shownDocument(session()),
): ShotDocument {
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
  const { title, titleOwn, provenance } = session();
  return withCaption({ title, titleOwn, provenance, document }, origin, timeZone);
}

/** Tells whether the caption of the open shot would say where it is from, were that allowed. */
export function captionTells(): boolean {
  const { title, titleOwn, provenance, history } = session();
  return captionTellsWhere({ title, titleOwn, provenance, document: history.document });
}
