import { randomUUID } from 'node:crypto';
import pLimit from 'p-limit';
import type postgres from 'postgres';
import { sql } from '../db/sql';
import { PIECE, piecesOf, loopTurn } from '../base/pieces';
import { sha256Of, type Frame } from './intake';

/** Bytes of one value in a query: written out as digits, they cost ten times what copying does. */
const VALUE = 150_000;

/**
 * The row of a frame: one that holds the same already, what it was opened from too, else a new one.
 * The row is held until the transaction ends, so that whoever
 * erases the last shot of it meanwhile waits, or is waited for.
 * @returns its id
 */
export async function keepFrame(
  tx: postgres.TransactionSql,
  frame: Frame,
  id?: string,
): Promise<string> {
  const original = frame.original && (await sha256Of(frame.original.bytes));
  const [same] = await tx<{ id: string }[]>`
    select id from frames where sha256 = ${frame.sha256}
      and encode(sha256(original), 'hex') is not distinct from ${original}::text
      and (width, height) = (${frame.width}, ${frame.height}) limit 1 for key share`;
  return same?.id ?? insertFrame(tx, frame, id);
}

/** A new row for a frame. @returns its id */
export async function insertFrame(
  tx: postgres.TransactionSql,
  frame: Frame,
  id: string = randomUUID(),
): Promise<string> {
  const { sha256, width, height, opaque, bytes, original } = frame;
  await sendAhead(tx, `${id} bytes`, bytes);
  if (original) await sendAhead(tx, `${id} original`, original.bytes);
  const value = (file: string, all: Uint8Array) =>
    all.length <= PIECE
      ? Buffer.from(all)
      : tx`(select string_agg(piece, '' order by place) from arriving where file = ${file})`;
  await tx`insert into frames (id, sha256, width, height, opaque, bytes, original, original_type)
    values (${id}, ${sha256}, ${width}, ${height}, ${opaque}, ${value(`${id} bytes`, bytes)},
      ${original ? value(`${id} original`, original.bytes) : null}, ${original?.type ?? null})`;
  return id;
}

/**
 * In a query bytes are written out as digits, which would hold the event loop up for a second where
 * a file has 60 MB: a large one goes ahead in pieces, into a table of this transaction's own, and
 * the database puts it together.
 */
async function sendAhead(
  tx: postgres.TransactionSql,
  file: string,
  bytes: Uint8Array,
): Promise<void> {
  if (bytes.length <= PIECE) return;
  await tx`create temporary table if not exists arriving (file text, place integer, piece bytea)
    on commit drop`;
  let place = 0;
  for await (const piece of piecesOf(bytes, VALUE)) {
    await tx`insert into arriving values (${file}, ${place}, ${Buffer.from(piece)})`;
    place += 1;
  }
}

/** One large frame is read at a time: the other connections are for what is asked meanwhile. */
const inTurn = pLimit(1);

/**
 * The PNG of a frame, or what it was opened from, piece by piece; frames never change.
 * @returns null when it is gone meanwhile
 */
export const frameBytes = (
  id: string,
  length: number,
  file: 'bytes' | 'original' = 'bytes',
): Promise<Buffer | null> => inTurn(() => read(id, length, file));

async function read(
  id: string,
  length: number,
  file: 'bytes' | 'original',
): Promise<Buffer | null> {
  const all = Buffer.alloc(length);
  for (let at = 0; at < length; at += VALUE) {
    await loopTurn();
    const [row] = await sql()<{ piece: Buffer }[]>`
      select substring(${sql()(file)} from ${at + 1} for ${VALUE}) as piece from frames where id = ${id}`;
    if (!row) return null;
    row.piece.copy(all, at);
  }
  return all;
}
