import { z } from 'zod';
import { shotSummarySchema } from './shot';

/** What room is used for. */
export const roomKinds = [
  'frames',
  'originals',
  'marks',
  'finding',
  'thumbnails',
  'sending',
  'films',
] as const;
export type RoomKind = (typeof roomKinds)[number];

const bytes = z.number().min(0);
/** Those that belong to shots, by the month in which the shots came. */
export const monthKinds = ['frames', 'originals', 'marks'] as const;

export const roomSchema = z.object({
  kinds: z.array(z.object({ kind: z.enum(roomKinds), bytes })),
  /** The database as it lies on the disk, with what it needs to find its way about, and films. */
  whole: bytes,
  /** Copies kept in folders, as large as they were when they were kept. */
  copies: z.object({ count: z.int(), bytes }),
  /** The earliest first: each month since the first shot, also those in which nothing came. */
  months: z.array(
    z.object({
      /** 2026-11 */
      month: z.string(),
      shots: z.int(),
      frames: bytes,
      originals: bytes,
      marks: bytes,
    }),
  ),
  /** What came in the last thirty days. */
  lately: bytes,
  /** Free on the disk of the database; null where that cannot be told. */
  free: bytes.nullable(),
  /** There is less than this left that should be. */
  low: z.boolean(),
});
export type Room = z.infer<typeof roomSchema>;

/** Days after which a shot that nobody kept may go. */
export const unkeptDays = z.coerce.number().int().min(1).max(3650);
export const unkeptQuerySchema = z.strictObject({ days: unkeptDays });

/** What a rule would put into the Bin now. */
export const unkeptSchema = z.object({
  count: z.int(),
  /** Of their frames that no other shot shows. */
  bytes,
  /** The oldest of them. */
  shots: z.array(shotSummarySchema.pick({ id: true, title: true, revision: true, takenAt: true })),
});
export type Unkept = z.infer<typeof unkeptSchema>;
