import { withCaption } from '@/core/keep/caption';
import type { FactsRule } from '@/core/contracts/format';
import type { Paintable } from '../shots/rows';

export const timeZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** A shot with what its caption says where such facts may be told; nothing says where it is from else. */
export const asItLeaves = (shot: Paintable, facts?: Pick<FactsRule, 'origin'>): Paintable => ({
  ...shot,
  document: withCaption(shot, facts?.origin ?? false, timeZone()),
});
