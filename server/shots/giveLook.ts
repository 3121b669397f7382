import { withLook } from '@/core/document/look';
import type { Look, LookGiven } from '@/core/contracts/look';
import { Fault } from '../base/fault';
import { changeShot, getSteps, oneStep } from './change';
import { getShot } from './rows';

/** Gives a look to shots, each in one step of undo; {n} of a caption counts them. */
export async function giveLook(look: Look, ids: readonly string[]): Promise<LookGiven> {
  const left: LookGiven['left'] = [];
  for (const [i, id] of ids.entries()) {
    try {
      await give(look, id, i + 1);
    } catch (error) {
      if (!(error instanceof Fault)) throw error;
      left.push({ id, problem: error.message });
    }
  }
  return { given: ids.length - left.length, left };
}

async function give(look: Look, id: string, number: number): Promise<void> {
  const { document: before, revision } = await getShot(id);
  const { position } = await getSteps(id);
  const document = withLook(before, look, number);
  const steps = oneStep(before, document, position, `Look “${look.name}”`);
  await changeShot(id, { document, revision, steps });
}
