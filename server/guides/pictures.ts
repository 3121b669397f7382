import type { StepPart, Page } from '@/core/guide/page';
import type { Guide } from '@/core/contracts/guide';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import type { Picture } from '../guideFormats/contract';
import { encodeShot } from '../keep/encode';
import { getPaintable } from '../shots/rows';

/** The picture of a step: as it leaves, in the guide's look and size, its numbers running on. */
export async function pictureOf(step: StepPart, { look, longest }: Guide): Promise<Picture> {
  const { bytes, width, height } = await encodeShot(await getPaintable(step.shot), {
    format: 'png',
    first: step.first,
    facts: { words: false, origin: false },
    ...(look && { look }),
    ...(longest && { longest }),
  });
  return { png: bytes, width, height };
}

/** @param bytes of all its pictures so far @throws Fault 409 */
export function checkRoom(bytes: number): void {
  if (bytes <= limits.guidePictures) return;
  const most = Math.round(limits.guidePictures / 1_000_000);
  throw new Fault(
    409,
    'too-large',
    `The pictures of this guide have more than ${most} MB together. Make them smaller, or make two guides of it.`,
  );
}

/** All pictures of a guide, by the id of their step. @throws Fault 409 when they are too large */
export async function picturesOf(
  page: Page,
  guide: Guide,
  signal?: AbortSignal,
): Promise<Map<string, Picture>> {
  const pictures = new Map<string, Picture>();
  let bytes = 0;
  for (const part of page.parts) {
    if (part.kind !== 'step') continue;
    signal?.throwIfAborted();
    const picture = await pictureOf(part, guide);
    bytes += picture.png.length;
    checkRoom(bytes);
    pictures.set(part.id, picture);
  }
  return pictures;
}
