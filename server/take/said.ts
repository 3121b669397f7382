import { desktopNotice } from '../display/notice';
import { tellPages } from '../display/openPages';
import { getSettings } from '../settings/settings';

/**
 * Says in open pages, and on the desktop where that is wanted, what became of a take by system key.
 * @param taken null where nothing was, which is always said
 */
export async function say(
  routine: string,
  lines: string[],
  taken: { shot: string; mark: boolean; keep: boolean } | null,
): Promise<void> {
  tellPages({ routine, lines, ...(taken ?? {}) });
  const { notice } = await getSettings();
  if (notice || !taken) await desktopNotice(routine, lines.join('\n'));
}
