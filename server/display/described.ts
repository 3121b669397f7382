import type { DescribedPart } from '@/core/screen/parts/described';
import { closeAccessibilityBus } from '../accessibility/bus';
import { describeWindows } from '../accessibility/describe';
import { env } from '../base/env';
import { getSettings } from '../settings/settings';
import type { Still } from './still';

const asked = new WeakMap<Still, Promise<readonly DescribedPart[]>>();

function stopAsking(): readonly DescribedPart[] {
  closeAccessibilityBus();
  return [];
}

/** The parts of a stilled screen as its programs describe them; none where they may not be asked. */
export function describedOn(still: Still): Promise<readonly DescribedPart[]> {
  const before = asked.get(still);
  if (before) return before;
  const now = getSettings().then(({ partsAsked }) =>
    partsAsked ? describeWindows(still.windows, env().describing) : stopAsking(),
  );
  asked.set(still, now);
  return now;
}
