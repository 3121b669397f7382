import { randomUUID } from 'node:crypto';
import type postgres from 'postgres';
import { documentFor, type ShotDocument } from '@/core/document/document';
import { provenanceSchema, sourceLabels, type Provenance } from '@/core/contracts/provenance';
import type { Paragraph } from '@/core/recognition/words';
import type { Stored } from '@/core/contracts/shot';
import { untouched } from '@/core/document/view';
import { dropBefore } from '../db/before';
import { json, sql } from '../db/sql';
import { indexShot } from '../indexing/indexing';
import { personActs } from '../words/quiet';
import { giveKnown, knownWords } from '../words/known';
import { wantWords } from '../words/wanted';
import { checkHeld, takeIn, type Frame } from '../frames/intake';
import { keepFrame } from '../frames/rows';
import { fit } from '../http/body';
import { sweepMedia } from '../media/files';
import { Fault, notFound } from '../base/fault';
import { getShot } from './rows';

export interface NewShot {
  id?: string | undefined;
  picture: Uint8Array | Frame;
  title?: string | undefined;
  /** The title was made by itself, not given by a person. */
  titleMade?: boolean | undefined;
  provenance?: Provenance | undefined;
  /** Nobody is there who takes it. */
  byItself?: boolean | undefined;
  /** The first view and marks; the whole frame without marks when absent. */
  document?: unknown;
  /** What is stored with it, or not at all. */
  also?: (tx: postgres.TransactionSql) => Promise<void>;
}

/** A shot from a picture; sent twice under one id it is stored once. @throws Fault 4xx */
export async function storeShot(shot: NewShot, now = new Date()): Promise<Stored> {
  const id = shot.id?.toLowerCase() ?? randomUUID();
  if (await exists(id)) return stored(id);
  const frame = shot.picture instanceof Uint8Array ? await takeIn(shot.picture) : shot.picture;
  const document: ShotDocument =
    shot.document === undefined ? untouched(frame) : fit(shot.document, documentFor(frame));
  await checkHeld(document.pictures, undefined);
  const provenance = provenanceSchema.parse(
    shot.provenance ?? { source: 'api', takenAt: now.toISOString() },
  );
  const takenAt = new Date(provenance.takenAt);
  const given = shot.title?.trim();
  const title = given || firstTitle(provenance);
  const own = given !== undefined && given !== '' && shot.titleMade !== true;
  const known = await knownWords(provenance);
  try {
    await sql().begin(async (tx) => {
      const frameId = await keepFrame(tx, frame);
      const added =
        await tx`insert into shots (id, frame_id, title, title_own, document, provenance, taken_at)
        values (${id}, ${frameId}, ${title}, ${own}, ${json(document)}, ${json(provenance)}, ${takenAt})
        on conflict (id) do nothing`;
      if (added.count === 0) throw new AlreadyStored();
      if (!shot.byItself) personActs();
      await shot.also?.(tx);
      await (known ? foundByKnown(tx, id, known, document) : found(tx, id));
    });
  } catch (error) {
    if (!(error instanceof AlreadyStored)) throw error;
  }
  return stored(id);
}

/** A new shot can be found at once by what is known of it, later also by its words. */
async function found(tx: postgres.TransactionSql, id: string): Promise<void> {
  await indexShot(tx, id);
  await wantWords(tx, id, 'taken');
}

/** The same of one whose words are known without being read. */
async function foundByKnown(
  tx: postgres.TransactionSql,
  id: string,
  known: readonly Paragraph[],
  { view }: ShotDocument,
): Promise<void> {
  await giveKnown(tx, id, known, view.crop);
  await indexShot(tx, id);
}

/** The same id came twice at the same time: takes this frame back, the other one stands. */
class AlreadyStored extends Error {}

async function exists(id: string): Promise<boolean> {
  const [row] = await sql()`select 1 from shots where id = ${id}`;
  return row !== undefined;
}

async function stored(id: string): Promise<Stored> {
  const { revision, width, height } = await getShot(id);
  return { id, revision, width, height };
}

function firstTitle(provenance: Provenance): string {
  const file = provenance.fileName?.replace(/\.[^.]{1,5}$/, '');
  return file || provenance.windowTitle || provenance.display || sourceLabels[provenance.source];
}

/** How many a person took on the day of a moment, where this computer is; the bin's count too. */
export async function takenOn(day: Date): Promise<number> {
  const start = new Date(day.getFullYear(), day.getMonth(), day.getDate());
  const end = new Date(day.getFullYear(), day.getMonth(), day.getDate() + 1);
  const onDay = sql()`taken_at >= ${start} and taken_at < ${end} and not (provenance ? 'series')`;
  // Each has its index: asked for in one, all shots would be looked through.
  const [row] = await sql()<{ n: number }[]>`
    select ((select count(*) from shots where binned_at is null and ${onDay})
      + (select count(*) from shots where binned_at is not null and ${onDay}))::int as n`;
  return row?.n ?? 0;
}

/** A new shot over the same frame. @throws Fault 400, 404 */
export async function duplicateShot(
  from: string,
  given: {
    id?: string | undefined;
    title?: string | undefined;
    document?: ShotDocument | undefined;
  },
): Promise<Stored> {
  const shot = await getShot(from);
  const id = given.id?.toLowerCase() ?? randomUUID();
  const document = fit(given.document ?? shot.document, documentFor(shot));
  await checkHeld(document.pictures, shot.document.pictures);
  const title = given.title?.trim() || `${shot.title} (2)`.slice(-300);
  await sql().begin(async (tx) => {
    const added = await tx`
      insert into shots (id, frame_id, title, title_own, document, provenance, taken_at)
      select ${id}, frame_id, ${title}, title_own, ${json(document)}, provenance, taken_at
      from shots where id = ${from} on conflict (id) do nothing`;
    if (added.count === 0) return;
    personActs();
    await found(tx, id);
  });
  return stored(id);
}

/**
 * Sets only the title, which is the person's own from then on; what is being drawn meanwhile is not
 * disturbed. @throws Fault 404
 */
export async function renameShot(id: string, title: string): Promise<void> {
  await sql().begin(async (tx) => {
    const done = await tx`
      update shots set title = ${title}, title_own = true, changed_at = now() where id = ${id}`;
    if (done.count === 0) throw notFound('shot');
    await indexShot(tx, id);
  });
}

export async function binShot(id: string): Promise<void> {
  const done =
    await sql()`update shots set binned_at = coalesce(binned_at, now()) where id = ${id}`;
  if (done.count === 0) throw notFound('shot');
}

export async function restoreShot(id: string): Promise<void> {
  const done = await sql()`update shots set binned_at = null where id = ${id}`;
  if (done.count === 0) throw notFound('shot');
}

/**
 * Erases a shot that lies in the bin, and its frame when no other shot uses it.
 * @param before only if it was put there before then
 * @throws Fault 404, 409
 */
export async function eraseShot(id: string, before?: Date): Promise<void> {
  const shot = await getShot(id);
  if (!shot.binnedAt) {
    throw new Fault(409, 'not-in-bin', 'Only a shot that lies in the bin can be deleted for good.');
  }
  await sql().begin(async (tx) => {
    // Whoever makes another shot of this frame meanwhile waits, or is waited for.
    await tx`select 1 from frames f join shots s on s.frame_id = f.id where s.id = ${id} for update of f`;
    const [row] = await tx<{ frameId: string }[]>`
      delete from shots where id = ${id} and binned_at is not null
        and (${before ?? null}::timestamptz is null or binned_at < ${before ?? null})
      returning frame_id`;
    if (!row) return;
    // Guides that show it leave it out from now on; what was shown by a link ends.
    await tx`delete from links where ${id} = any(shows)`;
    await tx`delete from frames f where f.id = ${row.frameId}
      and not exists (select 1 from shots s where s.frame_id = f.id)`;
    // It may lie in what was kept before a migration, too.
    await dropBefore(tx);
  });
  await sweepMedia();
}
