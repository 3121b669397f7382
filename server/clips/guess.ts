import { randomUUID } from 'node:crypto';
import { mkdir, mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { z } from 'zod';
import type { Clip } from '@/core/contracts/clip';
import { clipFormats, type clipSizeSchema } from '@/core/contracts/clipCopy';
import { filmEnds, type Cuts } from '@/core/clip/cuts';
import { keptSeconds } from '@/core/clip/played';
import { sampleOf, sizeBySample } from '@/core/clip/sample';
import { isUntouched } from '@/core/document/atPicture';
import { env } from '../base/env';
import { shared } from '../base/shared';
import { copyable } from './copied';
import { produce } from './produce';
import { filmOf, getClip, type Film } from './rows';
import type { Writing } from './written';

interface Guessing {
  clip: Clip;
  film: Film;
  folder: string;
  signal: AbortSignal;
}

/** How large it becomes, so cut. */
async function sizeOf(
  { clip, film, folder, signal }: Guessing,
  cuts: Cuts,
  writing: Writing,
): Promise<number> {
  const path = join(folder, `${randomUUID()}.${clipFormats[writing.format].extension}`);
  const heard = (): void => undefined;
  await produce({ clip: { ...clip, cuts }, film, path, signal, heard }, writing, null);
  return (await stat(path)).size;
}

async function guess(guessing: Guessing, writing: Writing): Promise<number> {
  const { clip, film, signal } = guessing;
  const { cuts, times } = clip;
  if (isUntouched(clip.document, film) && (await copyable(clip, film, writing, signal)))
    return Math.round((clip.bytes * keptSeconds(cuts, times)) / Math.max(0.01, filmEnds(times)));
  const sample = sampleOf(cuts, times);
  if (!sample) return sizeOf(guessing, cuts, writing);
  const stretches = await sizeOf(guessing, sample.stretches, writing);
  // With fewer a second some of these would be left out.
  const pictures = await sizeOf(guessing, sample.pictures, { ...writing, rate: null });
  return sizeBySample(sample, { stretches, pictures }, cuts, times);
}

const folders = (): string => join(env().dataDir, 'clip-sizes');
const inUse = shared('clipSizes', () => new Set<string>());

/** A folder of its own; what a crash left of others goes. */
async function ownFolder(): Promise<string> {
  await mkdir(folders(), { recursive: true, mode: 0o700 });
  for (const path of (await readdir(folders())).map((name) => join(folders(), name)))
    if (!inUse.has(path)) await rm(path, { recursive: true, force: true });
  const folder = await mkdtemp(join(folders(), 'size-'));
  inUse.add(folder);
  return folder;
}

/** About how many bytes a file of a clip will have. @throws Fault 404 */
export async function guessSize(
  shot: string,
  wish: z.output<typeof clipSizeSchema>,
  signal: AbortSignal,
): Promise<number> {
  const [clip, film] = await Promise.all([getClip(shot), filmOf(shot)]);
  const folder = await ownFolder();
  try {
    const writing = { ...wish, title: null, description: null, bits: null };
    return await guess({ clip, film, folder, signal }, writing);
  } finally {
    await rm(folder, { recursive: true, force: true });
    inUse.delete(folder);
  }
}
