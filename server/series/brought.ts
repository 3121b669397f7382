import type { Provenance } from '@/core/contracts/provenance';
import { notFound } from '../base/fault';
import { readShotForm } from '../shots/readForm';
import { settleTake } from './log';
import { getDue, type Due } from './rows';
import { settlePicture, whyNot } from './take';

/** @throws Fault 404 where it is not waited for any more */
async function waitedFor(id: string): Promise<Due> {
  const due = await getDue(id);
  if (!due) throw notFound('time that waits');
  return due;
}

/** A page brings the picture that it took. @throws Fault 400, 404, 413, 415 */
export async function bringPicture(id: string, request: Request): Promise<void> {
  const due = await waitedFor(id);
  const { picture, provenance } = await readShotForm(request);
  const here: Provenance = { source: due.what.source, takenAt: new Date().toISOString() };
  const whole = { bytes: Buffer.from(picture), provenance: provenance ?? here, said: [] };
  try {
    await settlePicture(due, whole, request.signal);
  } catch (error) {
    await settleTake(id, 'missed', { why: whyNot(error) });
    throw error;
  }
}

/** A page says why it could take nothing. @throws Fault 404 */
export async function bringNothing(id: string, why: string): Promise<void> {
  await waitedFor(id);
  await settleTake(id, 'missed', { why });
}
