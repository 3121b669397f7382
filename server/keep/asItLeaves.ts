import { withCaption } from '@/core/keep/caption';
import { numberedFrom } from '@/core/document/numberedFrom';
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
}

/**
 * A shot with the look that it is to leave with, and with what its caption says there; nothing says
 * where it is from but where the rule lets that out. @throws Fault 404 for an unknown look
 */
export async function asItLeaves(
  shot: Paintable,
  { facts, look, first }: Leaves = {},
): Promise<Paintable> {
  const looked = look ? withLook(shot.document, await getLook(look)) : shot.document;
  const document = first === undefined ? looked : numberedFrom(looked, first);
  return {
    ...shot,
    document: withCaption({ ...shot, document }, facts?.origin ?? false, timeZone()),
  };
}
