import type { Copy, Folder } from '@/core/contracts/folder';
import type { Shot } from '@/core/contracts/shot';
import { api, ApiError, messageOf } from '../api/client';
import { copyPicture } from '../pictures/clipboard';
import type { Wish } from './KeepView';
import type { Places } from './Where';

/** What came of one place. */
export interface Result {
  key: string;
  place: string;
  state: 'working' | 'done' | 'failed';
  copy?: Copy;
  problem?: string;
  reason?: string;
  again: () => void;
}

interface Job {
  shot: Shot;
  folders: Folder[];
  places: Places;
  wish: Wish;
  onResult: (result: Result) => void;
}

/** Keeps a shot in every chosen place; one that fails does not stop the others. */
export async function keepEverywhere(job: Job): Promise<void> {
  const inFolders = job.folders
    .filter((folder) => job.places.folders.includes(folder.id))
    .map((folder) => keepIn(job, folder));
  await Promise.all([...inFolders, ...(job.places.clipboard ? [copy(job)] : [])]);
}

async function attempt(
  job: Job,
  facts: Pick<Result, 'key' | 'place'>,
  work: () => Promise<Copy | undefined>,
): Promise<void> {
  const again = () => void attempt(job, facts, work);
  job.onResult({ ...facts, state: 'working', again });
  try {
    job.onResult({ ...facts, state: 'done', copy: await work(), again });
  } catch (error) {
    const reason = error instanceof ApiError ? error.reason : undefined;
    job.onResult({ ...facts, state: 'failed', problem: messageOf(error), reason, again });
  }
}

function keepIn(job: Job, folder: Folder): Promise<void> {
  const { format, quality, pattern } = job.wish;
  return attempt(job, { key: folder.id, place: folder.name }, () =>
    api.keep(job.shot.id, {
      folderId: folder.id,
      ...(format && { format }),
      ...(quality && { quality }),
      ...(pattern && { name: pattern }),
    }),
  );
}

function copy(job: Job): Promise<void> {
  return attempt(job, { key: 'clipboard', place: 'Clipboard' }, async () => {
    await copyPicture(api.picture(job.shot.id, 'png', 100));
    return undefined;
  });
}
