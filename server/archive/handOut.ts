import type { Readable } from 'node:stream';
import { sql } from '../db/sql';
import { allFound } from '../search/find';
import { writeArchive, type Wanted } from './out';
import { addArchive, endArchive, forgetProgress, tellProgress } from './rows';
import { zipOut } from './zipOut';

/** Rezzik 2026-11-28.zip */
export const archiveName = (at: Date): string =>
  `Rezzik ${[at.getFullYear(), at.getMonth() + 1, at.getDate()]
    .map((n) => String(n).padStart(2, '0'))
    .join('-')}.zip`;

/** What is in an archive of a query; of an empty one, everything. @throws Fault 400 */
export async function wantedBy(query: string): Promise<Wanted['only']> {
  const q = query.trim();
  return q === '' ? null : { query: q, ids: await allFound(q) };
}

/**
 * An archive for whoever reads the stream, begun at once. It is known by its name from its beginning
 * on, also where it is broken off: what was read of it until then may lie somewhere.
 * @throws Fault 400
 */
export async function handOut(query: string, name: string, signal: AbortSignal): Promise<Readable> {
  const only = await wantedBy(query);
  const { id, beganAt } = await addArchive(sql(), {
    direction: 'out',
    path: name,
    query: only?.query,
    shows: only?.ids,
  });
  const zip = zipOut(beganAt);
  let bytes = 0;
  zip.stream.on('data', (piece: Buffer) => (bytes += piece.length)).pause();
  void writeArchive(zip, { began: beganAt, only }, tellProgress(id), signal)
    .then(
      (report) => endArchive(id, { bytes, report }),
      (error: unknown) => {
        zip.fail(error);
        return endArchive(id, {});
      },
    )
    .catch((error: unknown) => console.error('An archive could not be told of:', error))
    .finally(() => forgetProgress(id));
  return zip.stream;
}
