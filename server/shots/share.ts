import { limits } from '@/core/values/limits';
import { asLine } from '@/core/values/text';
import { Fault } from '../base/fault';
import type { Form } from '../http/form';
import { storeShot } from './store';

/** Stores every picture of a shared form. @returns the shots' ids @throws Fault 4xx */
export async function storeShared(form: Form, now = new Date()): Promise<string[]> {
  const files = form.files('pictures');
  if (files.length === 0)
    throw new Fault(400, 'no-picture', 'There is no picture in what was shared.');
  const ids: string[] = [];
  for (const file of files) {
    const fileName = asLine(file.name, limits.nameLength);
    const { id } = await storeShot({
      picture: file.bytes,
      provenance: {
        source: 'opened',
        takenAt: now.toISOString(),
        ...(fileName && { fileName }),
      },
    });
    ids.push(id);
  }
  return ids;
}
