import { randomUUID } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import pLimit from 'p-limit';
import { clipFormats, isFilm, type Clip, type ClipFormat } from '@/core/contracts/clip';
import type { Guide } from '@/core/contracts/guide';
import { numberedFrom } from '@/core/document/numberedFrom';
import type { StepPart } from '@/core/guide/page';
import { produceHidden } from '../clips/hidden';
import { filmOf, getClip } from '../clips/rows';
import type { Material, Moving } from '../guideFormats/contract';
import { arriving, writingPath } from '../media/files';
import { checkRoom } from './pictures';

/** A picture that moves by itself holds every picture: some a second, and not the largest. */
const MOVING = { rate: 8, longest: 1_200 };

/** All that is computed of films wants a core and more. */
const inTurn = pLimit(1);

/** The clips of a guide that are to move, by the id of their step. @throws Fault 404, 409 too large */
export async function movingOf(
  { page, pictures }: Material,
  guide: Guide,
  format: ClipFormat,
  signal?: AbortSignal,
): Promise<Map<string, Moving>> {
  const moving = new Map<string, Moving>();
  let bytes = 0;
  for (const { png } of pictures.values()) bytes += png.length;
  for (const part of page.parts) {
    if (part.kind !== 'step' || !part.moves) continue;
    const film = await inTurn(() => movingStep(part, guide, format, signal));
    bytes += film.bytes.length;
    checkRoom(bytes);
    moving.set(part.id, film);
  }
  return moving;
}

/** A clip as it leaves, in the guide's size, its numbers running on. */
async function movingStep(
  { shot, first }: StepPart,
  { longest }: Guide,
  format: ClipFormat,
  signal = new AbortController().signal,
): Promise<Moving> {
  signal.throwIfAborted();
  const [clip, film] = await Promise.all([getClip(shot), filmOf(shot)]);
  const { extension, type: mediaType } = clipFormats[format];
  const id = randomUUID();
  const path = writingPath(id, extension);
  const small = !isFilm(format);
  const most = Math.min(longest ?? Infinity, small ? MOVING.longest : Infinity);
  const writing = {
    ...{ format, percent: percentFor(clip, most), rate: small ? MOVING.rate : null },
    ...{ title: null, description: null, bits: null, sound: 'unhidden' as const },
  };
  // No row tells of it, by which it would be swept away.
  arriving.add(id);
  try {
    const heard = () => undefined;
    await produceHidden({ clip, film, path, signal, heard }, writing, null, (document) =>
      numberedFrom(document, first),
    );
    signal.throwIfAborted();
    return { bytes: await readFile(path), mediaType, extension };
  } finally {
    await rm(path, { force: true });
    arriving.delete(id);
  }
}

const percentFor = ({ leaves: { width, height } }: Clip, longest: number): number =>
  Math.min(100, (100 * longest) / Math.max(width, height));
