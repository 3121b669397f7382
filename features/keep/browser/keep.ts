import type { FormatFacts } from '@/core/contracts/format';
import type { Shot } from '@/core/contracts/shot';
import { api } from '../../api/client';
import { factsFor } from '../useFormats';
import { noWish, wishFor, type Wish } from '../wish';
import { asFolder, type BrowserFolder } from './folders';
import { writeInto } from './write';

/**
 * Keeps a shot in a folder of the browser's own computer, after writing was allowed.
 * @returns the path within the folder
 * @throws Error in plain words
 */
export async function keepInBrowser(
  shot: Shot,
  folder: BrowserFolder,
  formats: readonly FormatFacts[],
  wish: Wish = noWish,
): Promise<string> {
  const how = { ...wishFor(wish, asFolder(folder)), facts: folder.facts };
  const picture = await api.picture(shot.id, how);
  const extension = factsFor(formats, how.format)?.extension ?? how.format;
  return writeInto(folder, shot, picture, { pattern: wish.pattern ?? folder.pattern, extension });
}
