import type { Compared, Comparison } from '@/core/contracts/compare';
import { paintedPixels } from '../pictures/painted';
import { run } from '../pool/pool';
import { getPaintable } from '../shots/rows';
import { asItLeaves, type Without } from './asItLeaves';

const shown = async (id: string, without: Without) =>
  paintedPixels(await asItLeaves(await getPaintable(id), { without }));

/**
 * What two shots differ by, without what is around them; a shot and itself: untouched, and with what
 * was done to it. @throws Fault 404
 */
export async function shotDifferences(
  one: string,
  other: string,
  of: Compared,
): Promise<Comparison> {
  const without: Without = of === 'untouched' ? 'marks' : 'surround';
  const first = await shown(one, one === other ? 'marks' : without);
  const second = await shown(other, one === other ? 'surround' : without);
  const pixels = first.width * first.height + second.width * second.height;
  const found = await run('differences', { first, second }, { pixels });
  const sizeOf = ({ width, height }: { width: number; height: number }) => ({ width, height });
  return { ...found, first: sizeOf(first), second: sizeOf(second) };
}
