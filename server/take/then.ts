import type { ThenStep } from '@/core/places/registry';
import { doSteps, SAFE, type Doers, type Hearer } from '@/core/take/run';
import { serverDoers } from '../places';
import type { Handed } from '../places/contract';

/**
 * Does what comes after a take where no page is in front. @returns what is said of each step, in
 * their order
 */
export async function thenSaid(
  then: readonly ThenStep[],
  shot: Handed,
  doers: Doers<Handed> = serverDoers,
): Promise<string[]> {
  const of = new Map<ThenStep, string>();
  const hear: Hearer = {
    done: (step, words) => of.set(step, words),
    failed: (step, words) => of.set(step, `${words} ${SAFE}`),
  };
  await doSteps(then, shot, { doers, hear });
  return then.map((step) => of.get(step) ?? '');
}
