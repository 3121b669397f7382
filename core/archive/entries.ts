import type { RecordedType } from '../contracts/clip';
import { limits } from '../values/limits';

/**
 * The names of what lies in an archive (docs/archive.md). An id is a UUID in small letters; nothing
 * else is ever read, so that no name of an entry becomes a name of a file.
 */

/** What the archive is; the first entry. */
export const ABOUT = 'about.json';
/** Bytes and SHA-256 of every other entry, as JSON lines; the last entry. */
export const MANIFEST = 'manifest.jsonl';

/** Entries that hold a list, or one object, of a kind. */
export const LISTS = {
  settings: 'settings.json',
  folders: 'folders.json',
  remotes: 'remotes.json',
  routines: 'routines.json',
  looks: 'looks.json',
  tags: 'tags.json',
  searches: 'searches.json',
  numbers: 'numbers.json',
  guideFiles: 'guide-files.json',
} as const;

export const frameEntry = (id: string): string => `frames/${id}.png`;
/** The file that was opened, where that was no PNG as Rezzik stores it. */
export const originalEntry = (id: string): string => `frames/${id}.original`;
const filmEndings: Record<RecordedType, string> = {
  'video/webm': 'webm',
  'video/mp4': 'mp4',
  'video/x-matroska': 'mkv',
};
/** The name of a clip's film without its place. @param id of the clip’s shot */
export const filmName = (id: string, type: RecordedType): string => `${id}.${filmEndings[type]}`;
export const filmEntry = (id: string, type: RecordedType): string => `films/${filmName(id, type)}`;
export const shotEntry = (id: string): string => `shots/${id}.json`;
export const guideEntry = (id: string): string => `guides/${id}.json`;

const UUID = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}';
const KINDS = [
  { kind: 'frame', name: new RegExp(`^frames/(${UUID})\\.png$`) },
  { kind: 'original', name: new RegExp(`^frames/(${UUID})\\.original$`) },
  { kind: 'film', name: new RegExp(`^films/(${UUID})\\.(?:webm|mp4|mkv)$`) },
  { kind: 'shot', name: new RegExp(`^shots/(${UUID})\\.json$`) },
  { kind: 'guide', name: new RegExp(`^guides/(${UUID})\\.json$`) },
] as const;

export type EntryKind = (typeof KINDS)[number]['kind'] | 'list' | 'about' | 'manifest';

const lists: ReadonlySet<string> = new Set(Object.values(LISTS));

/** What an entry of such a name is; null for one that no archive has. */
export function entryKind(name: string): EntryKind | null {
  if (name === ABOUT) return 'about';
  if (name === MANIFEST) return 'manifest';
  if (lists.has(name)) return 'list';
  return KINDS.find((one) => one.name.test(name))?.kind ?? null;
}

/** The most bytes that an entry of a kind may have once it is unpacked. */
export const mostBytes: Record<EntryKind, number> = {
  about: 100_000,
  // A million entries.
  manifest: 200_000_000,
  list: 100_000_000,
  shot: 100_000_000,
  guide: 20_000_000,
  // What was taken in and written anew can be larger than what is taken in: a PNG of noise is a
  // little larger than its pixels.
  frame: limits.frameBytes,
  original: limits.pictureBytes,
  // What the zip can say of one file (core/archive/zip.ts).
  film: 0xfffffffe,
};
