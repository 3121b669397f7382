import pLimit from 'p-limit';
import { documentAt } from '@/core/document/atPicture';
import { documentSchema, type ShotDocument } from '@/core/document/document';
import { isNewer } from '@/core/document/upgrade/upgrade';
import { provenanceSchema } from '@/core/contracts/provenance';
import type { Shot } from '@/core/contracts/shot';
import { sql } from '../db/sql';
import type { Unpainted } from '../paint/flatten';
import { frameBytes } from '../frames/rows';
import { PIECE, loopTurn } from '../base/pieces';
import { filmPath } from '../media/files';
import { pictureOf } from '../media/pictures';
import { Fault, notFound } from '../base/fault';

interface ShotRow {
  id: string;
  title: string;
  titleOwn: boolean;
  revision: number;
  document: unknown;
  provenance: unknown;
  width: number;
  height: number;
  binnedAt: Date | null;
  /** Of a clip, the number of the picture that stands for it; else null. */
  cover: number | null;
}

/** @throws Fault 409 for a document or a step that a newer Rezzik wrote: nothing of it is changed */
export function refuseNewer(stored: unknown): void {
  if (!isNewer(stored)) return;
  const words = 'A newer Rezzik has marked this shot. It is safe; open it with that one.';
  throw new Fault(409, 'newer-document', words);
}

function storedDocument(stored: unknown): ShotDocument {
  refuseNewer(stored);
  return documentSchema.parse(stored);
}

const toShot = (row: ShotRow): Shot => ({
  id: row.id,
  title: row.title,
  titleOwn: row.titleOwn,
  revision: row.revision,
  document: storedDocument(row.document),
  provenance: provenanceSchema.parse(row.provenance),
  width: row.width,
  height: row.height,
  binnedAt: row.binnedAt?.toISOString() ?? null,
  ...(row.cover !== null && { clip: true, cover: row.cover }),
});

const columns = () => sql()`s.id, s.title, s.title_own, s.revision, s.document, s.provenance,
  f.width, f.height, s.binned_at, (select cover from clips where shot_id = s.id) as cover`;

/** A shot without its pixels. @throws Fault 404 */
export async function getShot(id: string): Promise<Shot> {
  const [row] = await sql()<ShotRow[]>`
    select ${columns()} from shots s join frames f on f.id = s.frame_id where s.id = ${id}`;
  if (!row) throw notFound('shot');
  return toShot(row);
}

/**
 * Those of some shots that are there, without their pixels, by their ids; null for one that a newer
 * Rezzik has marked.
 */
export async function getShots(ids: readonly string[]): Promise<Map<string, Shot | null>> {
  const rows = await sql()<ShotRow[]>`select ${columns()}
    from shots s join frames f on f.id = s.frame_id where s.id = any(${[...ids]}::uuid[])`;
  return new Map(rows.map((row) => [row.id, isNewer(row.document) ? null : toShot(row)]));
}

interface FrameRow {
  frameId: string;
  /** Null where they are read apart. */
  bytes: Buffer | null;
  length: number;
}

/** Small frames come with the row; large ones piece by piece, so that nothing else waits for them. */
const frameColumns = () => sql()`f.id as frame_id, octet_length(f.bytes) as length,
  case when octet_length(f.bytes) <= ${PIECE} then f.bytes end as bytes`;

/** @throws Fault 404 when it was erased meanwhile */
async function bytesOf({ frameId: id, bytes, length }: FrameRow): Promise<Buffer> {
  const all = bytes ?? (await frameBytes(id, length));
  if (!all) throw notFound('shot');
  return all;
}

/** The untouched frame as PNG. @throws Fault 404 */
export async function getFrame(id: string): Promise<{ bytes: Uint8Array; sha256: string }> {
  const [row] = await sql()<(FrameRow & { sha256: string })[]>`select ${frameColumns()}, f.sha256
    from shots s join frames f on f.id = s.frame_id where s.id = ${id}`;
  if (!row) throw notFound('shot');
  return { bytes: await bytesOf(row), sha256: row.sha256 };
}

/** A shot with its frame, all of one revision. */
export interface Paintable extends Shot, Unpainted {
  document: ShotDocument;
  frameId: string;
}

/**
 * One after the other: twenty at once would take all connections, and hundreds of marks of each the
 * event loop, from whoever only looks at the Shelf.
 */
const inTurn = pLimit(1);

const readPaintable = (id: string) =>
  inTurn(async () => {
    await loopTurn();
    const [row] = await sql()<(ShotRow & FrameRow & { opaque: boolean })[]>`
      select ${columns()}, ${frameColumns()}, f.opaque
      from shots s join frames f on f.id = s.frame_id where s.id = ${id}`;
    if (!row) throw notFound('shot');
    return { row, shot: toShot(row) };
  });

/** Whatever makes something of a shot reads it once, by this. @throws Fault 404 */
export async function getPaintable(id: string): Promise<Paintable> {
  const { row, shot } = await readPaintable(id);
  const { cover } = shot;
  const document = cover === undefined ? shot.document : documentAt(shot.document, cover, shot);
  // Of a clip the frame is the first picture, which may be cut away.
  const frame = cover ? await coverOf(id, cover) : await bytesOf(row);
  return { ...shot, document, frame, frameId: row.frameId, opaque: row.opaque };
}

/** The picture of a clip that stands for it, as PNG. @throws Fault 404 */
async function coverOf(id: string, cover: number): Promise<Buffer> {
  const [row] = await sql()<{ file: string; times: number[] }[]>`
    select file, times from clips where shot_id = ${id}`;
  if (!row) throw notFound('clip');
  return pictureOf({ path: filmPath(row.file), times: row.times.map((at) => at / 1e6) }, cover);
}
