import type { GuideFormat } from '@/core/contracts/guide';
import { guideWriters } from '../guideFormats';
import { zipped } from '../guideFormats/zip';
import { readyGuide, withMoving, writeGuide } from './write';

/** A guide as one file; one with pictures beside it comes as a zip. @throws Fault 404, 409 */
export async function guideFile(
  id: string,
  format: GuideFormat,
  signal?: AbortSignal,
): Promise<{ bytes: Uint8Array; name: string; mediaType: string }> {
  const material = await withMoving(await readyGuide(id, signal), format, signal);
  const files = await writeGuide(format, material, signal);
  const [first] = files;
  if (!first) throw new Error('A guide became no file.');
  const { mediaType, extension } = guideWriters[format];
  if (files.length === 1 && format !== 'markdown') {
    return { bytes: first.bytes, name: `${material.name}.${extension}`, mediaType };
  }
  const bytes = await zipped(files, new Date(material.changedAt));
  return { bytes, name: `${material.name}.zip`, mediaType: 'application/zip' };
}
