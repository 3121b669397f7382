import { isNewer, readDocument } from '@/core/shot/document';
import type { ShotDocument } from '@/core/contracts/document';
import { provenanceSchema } from '@/core/contracts/provenance';
import type { Shot } from '@/core/contracts/shot';
import { sql } from '../db/sql';
import { Fault, notFound } from '../http/fault';

interface ShotRow {
  id: string;
  title: string;
  revision: number;
  document: unknown;
  provenance: unknown;
  width: number;
  height: number;
  binned_at: Date | null;
}

/** @throws Fault 409 when a newer Rezzik wrote it: nothing of it is changed */
function storedDocument(stored: unknown): ShotDocument {
  if (isNewer(stored)) {
    throw new Fault(
      409,
      'newer-document',
      'A newer Rezzik has marked this shot. It is safe; open it with that one.',
    );
  }
  return readDocument(stored);
}

/** A shot without its pixels. @throws Fault 404 */
export async function getShot(id: string): Promise<Shot> {
  const [row] = await sql()<ShotRow[]>`
    select s.id, s.title, s.revision, s.document, s.provenance, f.width, f.height, s.binned_at
    from shots s join frames f on f.id = s.frame_id where s.id = ${id}`;
  if (!row) throw notFound('shot');
  return {
    id: row.id,
    title: row.title,
    revision: row.revision,
    document: storedDocument(row.document),
    provenance: provenanceSchema.parse(row.provenance),
    width: row.width,
    height: row.height,
    binnedAt: row.binned_at?.toISOString() ?? null,
  };
}

/** The untouched frame as PNG. @throws Fault 404 */
export async function getFrame(id: string): Promise<{ bytes: Uint8Array; sha256: string }> {
  const [row] = await sql()<{ bytes: Buffer; sha256: string }[]>`
    select f.bytes, f.sha256 from shots s join frames f on f.id = s.frame_id where s.id = ${id}`;
  if (!row) throw notFound('shot');
  return row;
}

export interface Paintable {
  frame: Uint8Array;
  opaque: boolean;
  document: ShotDocument;
  revision: number;
}

/** What is needed to paint a shot, read in one go. @throws Fault 404 */
export async function getPaintable(id: string): Promise<Paintable> {
  const [row] = await sql()<
    { bytes: Buffer; opaque: boolean; document: unknown; revision: number }[]
  >`
    select f.bytes, f.opaque, s.document, s.revision
    from shots s join frames f on f.id = s.frame_id where s.id = ${id}`;
  if (!row) throw notFound('shot');
  return {
    frame: row.bytes,
    opaque: row.opaque,
    document: storedDocument(row.document),
    revision: row.revision,
  };
}
