import type { z } from 'zod';
import { isNewer } from './upgrade/upgrade';
import { DOCUMENT_VERSION } from './version';

/** Said of what a later Rezzik wrote, which this one must not read halfway. */
export const newerWords = (what: string): string =>
  `This ${what} is of a newer Rezzik; this one reads up to version ${DOCUMENT_VERSION}.`;

/** For `z.preprocess`: what was stored as this version has it; newer ones are refused in plain words. */
export const readAs =
  (what: string, upgraded: (stored: unknown) => unknown) =>
  (stored: unknown, context: z.core.$RefinementCtx): unknown => {
    if (!isNewer(stored)) return upgraded(stored);
    context.addIssue({ code: 'custom', message: newerWords(what) });
    return stored;
  };
