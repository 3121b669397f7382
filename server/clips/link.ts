import { randomUUID } from 'node:crypto';
import { copyFile, rm } from 'node:fs/promises';
import type { z } from 'zod';
import { clipFormats, isFilm, type clipLinkSchema } from '@/core/contracts/clipCopy';
import type { Link } from '@/core/contracts/link';
import { firstKept } from '@/core/clip/cuts';
import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { Fault } from '../base/fault';
import { insertLink } from '../links/links';
import { filmPath, syncPath } from '../media/files';
import { probe } from '../media/probe';
import { markedFrameAt } from './stills';
import { unstaleFile } from './unstale';

/**
 * An address under which a film that was written of a clip is played.
 * @throws Fault 400 where what was written is no film, 404, 409 where it is not written yet, or
 * what lies on the clip was changed since
 */
export async function linkFilm(
  shot: string,
  { job, ...input }: z.output<typeof clipLinkSchema>,
): Promise<Link> {
  const { clip, file } = await unstaleFile(shot, job);
  const { path, type, wish } = file;
  const { format } = wish;
  if (!isFilm(format))
    throw new Fault(400, 'does-not-fit', 'job: a link plays films, WebM or MP4.');
  if (wish.words && !input.words)
    throw new Fault(400, 'does-not-fit', 'job: it was written with its title and description.');
  const { width, height } = await probe(path);
  const first = clip.times[firstKept(clip.cuts, clip.times.length)] ?? 0;
  const words = input.words
    ? { title: leavingTitle(clip), description: leavingDescription(clip) ?? '' }
    : { title: '', description: '' };
  const film = `${randomUUID()}.link.${clipFormats[format].extension}`;
  try {
    await copyFile(path, filmPath(film));
    await syncPath(filmPath(film));
    const bytes = await markedFrameAt(shot, first);
    return await insertLink(
      { shotId: shot },
      { ...words, width, height, bytes, film, filmType: type },
      input,
    );
  } catch (error) {
    await rm(filmPath(film), { force: true });
    throw error;
  }
}
