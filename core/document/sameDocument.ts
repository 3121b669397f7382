import { deepEqual } from 'fast-equals';
import type { ShotDocument } from './document';

/** As it is stored: fields without a value are not there. */
const asStored = (document: ShotDocument): unknown => JSON.parse(JSON.stringify(document));

/** Whether two documents say the same, in whatever order their fields stand. */
export const sameDocument = (a: ShotDocument, b: ShotDocument): boolean =>
  deepEqual(asStored(a), asStored(b));
