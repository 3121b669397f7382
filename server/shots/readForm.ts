import { z } from 'zod';
import { provenanceSchema } from '@/core/contracts/provenance';
import { title as titleSchema } from '@/core/contracts/shot';
import { fit, parseJson } from '../http/body';
import { Fault } from '../base/fault';
import { readForm } from '../http/form';
import type { NewShot } from './store';

/** The form of POST /api/shots. @throws Fault 400, 413, 415 */
export async function readShotForm(request: Request): Promise<NewShot & { picture: Uint8Array }> {
  const { words, files } = await readForm(request);
  const [picture] = files('frame');
  if (!picture) {
    throw new Fault(400, 'no-picture', 'The form has no picture in its field “frame”.');
  }
  const id = words('id');
  const title = words('title');
  const provenance = words('provenance');
  const document = words('document');
  return {
    id: id === undefined ? undefined : fit(id, z.uuid()),
    title: title === undefined ? undefined : fit(title, titleSchema),
    titleMade: words('titleMade') === '1',
    provenance: provenance === undefined ? undefined : parseJson(provenance, provenanceSchema),
    document: document === undefined ? undefined : parseJson(document, z.json()),
    picture: picture.bytes,
  };
}
