import { randomUUID } from 'node:crypto';
import { readFile, rm } from 'node:fs/promises';
import pLimit from 'p-limit';
import type { Clip } from '@/core/contracts/clip';
import { clipFormats, isFilm, type ClipFormat } from '@/core/contracts/clipCopy';
import type { Guide, GuideFilms } from '@/core/contracts/guide';
import { numberedFrom } from '@/core/document/numberedFrom';
import type { StepPart } from '@/core/guide/page';
import { secondsLeft, type HowFar } from '../base/howFar';
import { shared } from '../base/shared';
import { produceHidden } from '../clips/hidden';
import { filmOf, getClip } from '../clips/rows';
import type { Material, Moving } from '../guideFormats/contract';
import { arriving, writingPath } from '../media/files';
import { checkRoom } from './pictures';

/** A picture that moves by itself holds every picture: some a second, and not the largest. */
const MOVING = { rate: 8, longest: 1_200 };

/** All that is computed of films wants a core and more. */
const inTurn = pLimit(1);

/** Of what is written just now, by the id of its guide. */
const going = shared('guideFilms', () => new Map<string, HowFar>());

/** The clips of a guide that are to move, by the id of their step. @throws Fault 404, 409 too large */
export async function movingOf(
  { id, page, pictures }: Material,
  guide: Guide,
  format: ClipFormat,
  signal?: AbortSignal,
): Promise<Map<string, Moving>> {
  const moving = new Map<string, Moving>();
  let bytes = 0;
  for (const { png } of pictures.values()) bytes += png.length;
  const steps = page.parts.flatMap((part) => (part.kind === 'step' && part.moves ? [part] : []));
  const howFar = { since: Date.now(), progress: 0 };
  try {
    for (const [n, part] of steps.entries()) {
      const heard = (share: number): void => {
        going.set(id, Object.assign(howFar, { progress: (n + share) / steps.length }));
      };
      heard(0);
      const film = await inTurn(() => movingStep(part, guide, format, heard, signal));
      bytes += film.bytes.length;
      checkRoom(bytes);
      moving.set(part.id, film);
    }
    return moving;
  } finally {
    if (going.get(id) === howFar) going.delete(id);
  }
}

/** How far those are that are written of a guide just now, the latest ones; null where none are. */
export function filmsOf(id: string): GuideFilms | null {
  const howFar = going.get(id);
  return howFar ? { progress: howFar.progress, left: secondsLeft(howFar) } : null;
}

/** A clip as it leaves, in the guide's size, its numbers running on. */
async function movingStep(
  { shot, first }: StepPart,
  { longest }: Guide,
  format: ClipFormat,
  heard: (share: number) => void,
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
    ...{ title: null, description: null, bits: null, sound: 'unhidden' as const, fine: false },
  };
  // No row tells of it, by which it would be swept away.
  arriving.add(id);
  try {
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
