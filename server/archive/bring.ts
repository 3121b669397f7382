import { entryKind } from '@/core/archive/entries';
import type { Report } from '@/core/contracts/archive';
import { bringGuide } from './inGuides';
import type { Incoming } from './incoming';
import { bringGuideFiles, bringLists } from './inLists';
import { bringShot } from './inShots';
import type { Progress } from './out';
import { Reporting } from './reporting';
import { openArchive } from './zipIn';

/** Shots at a time: while one is decoded, another one is stored. */
const AT_ONCE = 2;

/**
 * Brings in what a file holds. It adds to what is here, changes nothing of it, and may be done again:
 * what is here already is left. @throws Fault 422 for what is no archive, AbortError
 */
export async function bringIn(
  path: string,
  progress: Progress,
  signal: AbortSignal,
): Promise<Report> {
  const archive = await openArchive(path);
  try {
    const incoming: Incoming = { archive, reporting: new Reporting(), ids: new Map() };
    archive.damaged.forEach(({ entry, why }) => incoming.reporting.damaged(entry, why));
    await bringLists(incoming);
    const idsOf = (kind: string): string[] =>
      archive.names.flatMap((name) =>
        entryKind(name) === kind ? [name.slice(name.indexOf('/') + 1, -'.json'.length)] : [],
      );
    const [shots, guides] = [idsOf('shot'), idsOf('guide')];
    const all = shots.length + guides.length;
    let done = 0;
    const next = shots.values();
    const lane = async (): Promise<void> => {
      for (const id of next) {
        signal.throwIfAborted();
        await bringShot(incoming, id);
        progress((done += 1), all);
      }
    };
    // All are waited for, so that none goes on reading what is closed.
    const lanes = await Promise.allSettled(Array.from({ length: AT_ONCE }, lane));
    for (const one of lanes) if (one.status === 'rejected') throw one.reason;
    for (const id of guides) {
      signal.throwIfAborted();
      await bringGuide(incoming, id);
      progress((done += 1), all);
    }
    await bringGuideFiles(incoming);
    return incoming.reporting.whole();
  } finally {
    archive.close();
  }
}
