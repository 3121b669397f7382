import { withCaption } from '@/core/keep/caption';
import { numberedFrom } from '@/core/document/numberedFrom';
import type { ShotDocument } from '@/core/document/document';
import { withFinish } from '@/core/finish/finish';
import { withLook } from '@/core/document/look';
import type { FactsRule } from '@/core/contracts/format';
import { timeZone } from '../base/timeZone';
import { getLook } from '../looks/looks';
import type { Paintable } from '../shots/rows';

interface Leaves {
  facts?: FactsRule | undefined;
  look?: string | undefined;
  /** Where its numbers begin. */
  first?: number | undefined;
  /** Not as it leaves, but to be compared here: without what is around it, or untouched in its view. */
  without?: Without | undefined;
}

export const withouts = ['surround', 'marks'] as const;
export type Without = (typeof withouts)[number];

/**
 * A shot with the look that it is to leave with, and with what its caption says there; nothing says
 * where it is from but where the rule lets that out. @throws Fault 404 for an unknown look
 */
export async function asItLeaves(
  shot: Paintable,
  { facts, look, first, without }: Leaves = {},
): Promise<Paintable> {
  const looked = look ? withLook(shot.document, await getLook(look)) : shot.document;
  const document = first === undefined ? looked : numberedFrom(looked, first);
  const shown = without ? bared(document, without) : document;
  return {
    ...shot,
    document: withCaption({ ...shot, document: shown }, facts?.origin ?? false, timeZone()),
  };
}

const bared = (document: ShotDocument, without: Without): ShotDocument =>
  without === 'marks'
    ? { ...document, marks: [], finish: undefined, pictures: undefined }
    : { ...document, finish: withFinish(document.finish, { surround: undefined }) };
