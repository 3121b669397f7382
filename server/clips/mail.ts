import { readFile, stat } from 'node:fs/promises';
import type { z } from 'zod';
import { clipFormats, type clipMailSchema } from '@/core/contracts/clipCopy';
import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { Fault } from '../base/fault';
import { draftOf, type Message } from '../mail/message';
import { unstaleFile } from './unstale';

/** More than that no mail service takes, bytes. */
const MOST = 60_000_000;

/**
 * A draft with a file that was written of a clip.
 * @throws Fault 404, 409 where it is not written yet, or stale, 413
 */
export async function clipMessage(
  shot: string,
  { job, to, subject, text }: z.output<typeof clipMailSchema>,
): Promise<Message> {
  const { clip, file } = await unstaleFile(shot, job);
  const { size } = await stat(file.path);
  if (size > MOST) {
    const words = 'A message takes a file of 60 MB at most. Say how many it may have.';
    throw new Fault(413, 'too-large', words);
  }
  const title = leavingTitle(clip);
  const { extension } = clipFormats[file.wish.format];
  return draftOf({
    ...{ to, subject, text, title, alt: leavingDescription(clip) ?? title },
    attached: { bytes: await readFile(file.path), type: file.type, extension },
  });
}
