/** Raised when the shape of a document changes; older ones are upgraded on reading (`upgrade/`). */
export const DOCUMENT_VERSION = 6;
