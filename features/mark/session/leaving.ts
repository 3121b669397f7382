import type { ShotDocument } from '@/core/document/document';
import { withCaption } from '@/core/keep/caption';
import { session } from './session';

/**
 * The open shot, or a document of it, with the words of its caption.
 * @param origin whether the caption may tell where it is from
 */
export function leavingDocument(
  origin = false,
  document: ShotDocument = session().history.document,
): ShotDocument {
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
  const { title, titleOwn, provenance } = session();
  return withCaption({ title, titleOwn, provenance, document }, origin, timeZone);
}
