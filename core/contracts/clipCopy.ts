import { z } from 'zod';
import type { Clip } from './clip';
import { copySchema } from './folder';
import { linkInputSchema } from './link';
import { mailShape } from './mail';
import { namePattern } from './namePattern';
import { sendingSchema } from './remote';

export const clipFormats = {
  webm: { label: 'WebM', note: 'for browsers, small', extension: 'webm', type: 'video/webm' },
  av1: { label: 'AV1', note: 'smallest, slow to write', extension: 'webm', type: 'video/webm' },
  mp4: { label: 'MP4', note: 'plays everywhere', extension: 'mp4', type: 'video/mp4' },
  gif: { label: 'GIF', note: 'moves by itself, 256 colours', extension: 'gif', type: 'image/gif' },
  webp: { label: 'WebP', note: 'moves by itself', extension: 'webp', type: 'image/webp' },
  apng: { label: 'PNG', note: 'moves by itself, exact', extension: 'png', type: 'image/apng' },
} as const;
export type ClipFormat = keyof typeof clipFormats;
/** A film, or else a picture that moves by itself. */
export const isFilm = (format: ClipFormat): boolean =>
  clipFormats[format].type.startsWith('video/');
/** The forms in which pictures lie as they were recorded, by how those were packed. */
const recordedForms: Partial<Record<string, ClipFormat>> = { vp9: 'webm', av1: 'av1', h264: 'mp4' };
/**
 * The form in which a clip can be kept as it was recorded, without packing its pictures anew: those
 * of finer colours only where these are asked for.
 * @returns null where there is none
 */
export const recordedAs = ({ codec }: Pick<Clip, 'codec'>): ClipFormat | null =>
  recordedForms[codec] ?? null;
export const clipFormatNames = ['webm', 'av1', 'mp4', 'gif', 'webp', 'apng'] as const;

/** How much of its sound goes with a film: all, all but where a Hide mark is, or none. */
export const soundRules = ['all', 'unhidden', 'none'] as const;
export type SoundRule = (typeof soundRules)[number];

const sizeShape = {
  percent: z.coerce.number().min(5).max(100).default(100),
  /** Pictures a second; null for those of the clip. */
  rate: z.coerce.number().min(1).max(60).nullable().default(null),
  sound: z.enum(soundRules).default('unhidden'),
};
/** In which form it is asked how large it becomes. */
export const clipSizeSchema = z.strictObject({
  format: z.enum(clipFormatNames),
  ...sizeShape,
  fine: z.stringbool().default(false),
});
export type ClipSize = z.output<typeof clipSizeSchema>;
export const clipBytesSchema = z.object({ bytes: z.number() });

const toOnePlace = {
  message: 'either a folder or a remote one',
  path: ['remoteId'],
};

export const clipWishSchema = z
  .strictObject({
    /** Null: the file is only made, to be fetched, or sent. */
    folderId: z.uuid().nullable(),
    /** A remote folder that it is sent to instead. */
    remoteId: z.uuid().nullable().default(null),
    format: z.enum(clipFormatNames),
    percent: z.number().min(5).max(100).default(100),
    /** Pictures a second; null for those of the clip. */
    rate: z.number().min(1).max(60).nullable().default(null),
    /** MB that the file may have: films get fewer bits a second, moving pictures fewer pixels. */
    most: z.number().min(0.01).max(10_000).nullable().default(null),
    sound: z.enum(soundRules).default('unhidden'),
    /** Of a film: colours as fine as brightness, which not every player shows. */
    fine: z.boolean().default(false),
    /** A name or pattern in place of the folder's own. */
    name: namePattern.optional(),
    /** Title and description stand in a file that is only made; a folder has a rule of its own. */
    words: z.boolean().default(true),
  })
  .refine(({ folderId, remoteId }) => folderId === null || remoteId === null, toOnePlace);
export type ClipWish = z.input<typeof clipWishSchema>;

/** A link under which a film that was made is played. */
export const clipLinkSchema = z.strictObject({ job: z.uuid(), ...linkInputSchema.shape });
export type ClipLink = z.input<typeof clipLinkSchema>;

/** A message with a film or a moving picture that was made. */
export const clipMailSchema = z.strictObject({ job: z.uuid(), ...mailShape });
export type ClipMail = z.input<typeof clipMailSchema>;

/** Drops for good what it does not show, as it was cut and marked then. */
export const clipDropSchema = z.strictObject({
  revision: z.int().min(1),
  marksRevision: z.int().min(1),
});
export type ClipDrop = z.infer<typeof clipDropSchema>;

export const clipJobSchema = z.object({
  id: z.uuid(),
  state: z.enum(['waiting', 'going on', 'done', 'stopped']),
  /** 0–1 of it is written. */
  progress: z.number(),
  /** Seconds that it will still take, where that can be told. */
  left: z.number().nullable(),
  problem: z.string().nullable(),
  bytes: z.number().nullable(),
  copy: copySchema.nullable(),
  /** To a remote folder. */
  sending: sendingSchema.nullable(),
  /** It takes the place of the clip's film. */
  drops: z.boolean().default(false),
});
export type ClipJob = z.infer<typeof clipJobSchema>;
