import type { Pixels } from '../paint/flatten';
import { run } from '../pool/pool';
import type { Likenesses } from '../work/tasks';

/**
 * How like a picture the file is that was made of it, from 0 to 1: structural similarity (Wang et
 * al. 2004) at full resolution, without the usual shrinking, which flatters. The file is decoded
 * and compared in a thread. @throws when it is of another size
 */
export function compare(before: Pixels, file: Uint8Array, background: string): Promise<Likenesses> {
  const pixels = 2 * before.width * before.height;
  return run('compare', { before, file, background }, { pixels });
}
