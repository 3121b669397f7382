import type { z } from 'zod';
import type { Copy, copyInputSchema, Folder } from '@/core/contracts/folder';
import { usableFolder } from '../folders/folders';
import { formats } from '../formats';
import { sha256Of } from '../frames/intake';
import { getPaintable } from '../shots/rows';
import { encodeShot, type EncodeWish } from './encode';
import { keepFile } from './keepFile';
import { writePart } from './write';

/**
 * Keeps a shot as a file. The shot itself is never touched, whatever happens here.
 * @throws Fault 404, or what stands in the way of the file, in plain words
 */
export async function keepCopy(
  shotId: string,
  input: z.output<typeof copyInputSchema>,
): Promise<Copy> {
  const [shot, folder] = await Promise.all([getPaintable(shotId), usableFolder(input.folderId)]);
  const format = input.format ?? folder.format;
  const { bytes, width, height } = await encodeShot(shot, wishFor(folder, input));
  const { extension } = formats[format];
  return keepFile({
    ...{ shot, folder, format, extension, size: { width, height } },
    ...{ bytes: bytes.length, sha256: await sha256Of(bytes) },
    pattern: input.name ?? folder.pattern,
    write: (part) => writePart(part, bytes),
  });
}

type CopyInput = z.output<typeof copyInputSchema>;

/** What a folder's rules and the wish of this once make together. */
function wishFor(folder: Folder, input: CopyInput): EncodeWish {
  const { folderId: _, name: __, format, options, ...wish } = input;
  const own = format === undefined || format === folder.format;
  const sized = ['width', 'height', 'longest', 'percent'].some((field) => field in wish);
  return {
    ...(sized ? {} : folder.size),
    maxBytes: folder.maxBytes ?? undefined,
    facts: folder.facts,
    look: folder.look ?? undefined,
    quality: folder.quality,
    ...wish,
    format: format ?? folder.format,
    options: options ?? (own ? folder.options : {}),
  };
}
