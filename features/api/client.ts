import { z } from 'zod';
import {
  copiesSchema,
  copySchema,
  folderSchema,
  renamedSchema,
  foldersSchema,
  placesSchema,
  type Copy,
  type Folder,
  type FolderInput,
  type Places,
  type Renamed,
} from '@/core/contracts/folder';
import {
  formatsSchema,
  type FactsRule,
  type FormatFacts,
  type FormatName,
  type FormatOptions,
  type SizeWish,
} from '@/core/contracts/format';
import {
  likenessSchema,
  readableSchema,
  type Likeness,
  type SmallestWords,
} from '@/core/contracts/likeness';
import { phoneSchema } from '@/core/contracts/phone';
import { linkSchema, linksSchema, type Link, type LinkInput } from '@/core/contracts/link';
import { nameInDisposition } from '@/core/naming/disposition';
import { mailDropSchema, type Dropped, type MailInput } from '@/core/contracts/mail';
import { programsSchema, type Programs } from '@/core/contracts/program';
import {
  type remotePatchSchema,
  remoteSchema,
  remotesSchema,
  sendingSchema,
  sendingsSchema,
  type Remote,
  type RemoteInput,
  type Sending,
} from '@/core/contracts/remote';
import {
  describedAnswerSchema,
  displayAnswerSchema,
  screenStillSchema,
  type DisplayAnswer,
  type ScreenStill,
} from '@/core/contracts/display';
import type { DescribedPart } from '@/core/screen/parts/described';
import {
  countSchema,
  daysSchema,
  readingSchema,
  savedSearchesSchema,
  savedSearchSchema,
  tagSchema,
  tagsSchema,
  wordsSchema,
  type DayCount,
  type Order,
  type Reading,
  type SavedSearch,
  type SavedSearchInput,
  type ShotWords,
  type Tag,
  type TagPatch,
} from '@/core/contracts/search';
import {
  settingsAnswerSchema,
  settingsSchema,
  type Settings,
  type SettingsPatch,
} from '@/core/contracts/settings';
import {
  routineSchema,
  routinesSchema,
  type Routine,
  type RoutineInput,
} from '@/core/contracts/way';
import {
  conflictSchema,
  errorSchema,
  revisedSchema,
  besidesSchema,
  foundPageSchema,
  shotPageSchema,
  shotSchema,
  stepsSchema,
  storedSchema,
  type Shot,
  type ShotChange,
} from '@/core/contracts/shot';

/** An answer that says no, with the server's own words; status 0 when there was no answer. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly reason?: string,
    /** The shot as it is stored, when the change was stale. */
    readonly current?: Shot,
    /** Of a certificate that a person may trust. */
    readonly fingerprint?: string,
  ) {
    super(message);
    this.name = 'ApiError';
  }
}

export const noAnswer = (error: unknown): boolean =>
  error instanceof ApiError && (error.status === 0 || error.status >= 500);

/** What to tell a person about anything that was thrown. */
export const messageOf = (error: unknown): string =>
  error instanceof Error ? error.message : String(error);

async function ask(path: string, init?: RequestInit): Promise<Response> {
  let answer: Response;
  try {
    answer = await fetch(path, init);
  } catch {
    throw new ApiError(
      0,
      'no-answer',
      'Rezzik’s server does not answer. Nothing is lost; it is tried again.',
    );
  }
  if (answer.ok) return answer;
  const body: unknown = await answer.json().catch(() => null);
  const conflict = conflictSchema.safeParse(body);
  const read = errorSchema.safeParse(body);
  const reason =
    body && typeof body === 'object' && 'reason' in body ? String(body.reason) : undefined;
  throw new ApiError(
    answer.status,
    read.data?.error.code ?? 'unknown',
    read.data?.error.message ?? `The server answered ${answer.status}.`,
    reason,
    conflict.data?.current,
    z.object({ fingerprint: z.string() }).safeParse(body).data?.fingerprint,
  );
}

async function read<T extends z.ZodType>(
  schema: T,
  path: string,
  init?: RequestInit,
): Promise<z.output<T>> {
  const answer = await ask(path, init);
  return schema.parse(await answer.json());
}

const sent = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
});

const shotPath = (id: string): string => `/api/shots/${id}`;

/** How a picture shall leave. */
export interface PictureWish extends SizeWish {
  format: FormatName;
  quality?: number;
  options?: FormatOptions;
  maxBytes?: number;
  background?: string;
  facts?: FactsRule;
}

export interface CopyWish extends Partial<PictureWish> {
  folderId: string;
  name?: string;
}

/** The fields of a wish as an address has them; the format's options by their own names. */
export function pictureQuery({ options, facts, ...wish }: PictureWish): string {
  const query = new URLSearchParams();
  const told = facts && { words: Number(facts.words), origin: Number(facts.origin) };
  for (const [name, value] of Object.entries({ ...options, ...wish, ...told })) {
    if (value !== undefined) query.set(name, String(value));
  }
  return query.toString();
}

/** A picture with what was chosen for it. */
export interface MadePicture {
  blob: Blob;
  width: number;
  height: number;
  quality: number;
  /** Some pixel of it is transparent, or would be where the format could hold that. */
  transparent: boolean;
}

export const api = {
  shot: (id: string): Promise<Shot> => read(shotSchema, shotPath(id)),
  shots: (options: {
    before?: string | null;
    /** Those newer than this, the nearest first. */
    after?: string;
    limit?: number;
    bin?: boolean;
  }) => {
    const query = new URLSearchParams({
      limit: String(options.limit ?? 60),
      bin: options.bin ? '1' : '0',
    });
    if (options.before) query.set('before', options.before);
    if (options.after) query.set('after', options.after);
    return read(shotPageSchema, `/api/shots?${query.toString()}`);
  },
  /** What fits a query, in the field's own words. */
  findShots: (
    asked: { q: string; order: Order; before?: string | null; limit: number; bin: boolean },
    signal?: AbortSignal,
  ) => {
    const { q, order, before, limit, bin } = asked;
    const query = new URLSearchParams({ q, order, limit: String(limit), bin: bin ? '1' : '0' });
    if (before) query.set('before', before);
    return read(foundPageSchema, `/api/shots?${query.toString()}`, { signal });
  },
  countShots: (q: string, bin: boolean, signal?: AbortSignal) => {
    const query = new URLSearchParams({ q, bin: bin ? '1' : '0' });
    return read(countSchema, `/api/shots/count?${query.toString()}`, { signal });
  },
  /** How many were taken on each day of a month that has some. */
  daysOf: async (month: string): Promise<DayCount[]> =>
    (await read(daysSchema, `/api/shots/days?month=${month}`)).days,
  words: (id: string): Promise<ShotWords> => read(wordsSchema, `${shotPath(id)}/words`),
  readAgain: (id: string) => ask(`${shotPath(id)}/words`, { method: 'POST' }),
  reading: (): Promise<Reading> => read(readingSchema, '/api/words'),
  readStoppedAgain: () => ask('/api/words', { method: 'POST' }),
  tags: async (): Promise<Tag[]> => (await read(tagsSchema, '/api/tags')).tags,
  tagsOf: async (id: string): Promise<string[]> =>
    (await read(z.object({ tags: z.array(z.string()) }), `${shotPath(id)}/tags`)).tags,
  setTags: async (id: string, tags: readonly string[]): Promise<string[]> => {
    const schema = z.object({ tags: z.array(z.string()) });
    return (await read(schema, `${shotPath(id)}/tags`, sent('PUT', { tags }))).tags;
  },
  tagMany: (shots: readonly string[], change: { add?: string[]; remove?: string[] }) =>
    ask('/api/shots/tags', sent('POST', { shots, ...change })),
  changeTag: (id: string, patch: TagPatch): Promise<Tag> =>
    read(tagSchema, `/api/tags/${id}`, sent('PATCH', patch)),
  removeTag: (id: string) => ask(`/api/tags/${id}`, { method: 'DELETE' }),
  searches: async (): Promise<SavedSearch[]> =>
    (await read(savedSearchesSchema, '/api/searches')).searches,
  saveSearch: (input: SavedSearchInput): Promise<SavedSearch> =>
    read(savedSearchSchema, '/api/searches', sent('POST', input)),
  changeSearch: (id: string, patch: Partial<SavedSearchInput>): Promise<SavedSearch> =>
    read(savedSearchSchema, `/api/searches/${id}`, sent('PATCH', patch)),
  removeSearch: (id: string) => ask(`/api/searches/${id}`, { method: 'DELETE' }),
  store: (form: FormData) => read(storedSchema, '/api/shots', { method: 'POST', body: form }),
  change: (id: string, change: ShotChange) =>
    read(revisedSchema, shotPath(id), sent('PUT', change)),
  rename: (id: string, title: string) => ask(shotPath(id), sent('PATCH', { title })),
  /** The files of its kept copies get the name, too. */
  renameFiles: async (id: string, title: string): Promise<Renamed> => {
    const schema = z.object({ files: renamedSchema });
    return (await read(schema, shotPath(id), sent('PATCH', { title, files: true }))).files;
  },
  duplicate: (id: string, given: object) =>
    read(storedSchema, `${shotPath(id)}/duplicates`, sent('POST', given)),
  steps: (id: string) => read(stepsSchema, `${shotPath(id)}/steps`),
  frame: async (id: string): Promise<Blob> => (await ask(`${shotPath(id)}/frame`)).blob(),
  picture: async (id: string, wish: PictureWish, signal?: AbortSignal): Promise<MadePicture> => {
    const answer = await ask(`${shotPath(id)}/picture?${pictureQuery(wish)}`, { signal });
    const [width = 0, height = 0] = (answer.headers.get('X-Picture-Size') ?? '').split('x');
    return {
      blob: await answer.blob(),
      width: Number(width),
      height: Number(height),
      quality: Number(answer.headers.get('X-Picture-Quality')),
      transparent: answer.headers.get('X-Picture-Transparent') === '1',
    };
  },
  formats: async (): Promise<FormatFacts[]> => (await read(formatsSchema, '/api/formats')).formats,
  likeness: (id: string, wish: PictureWish, signal?: AbortSignal): Promise<Likeness> =>
    read(likenessSchema, `${shotPath(id)}/likeness?${pictureQuery(wish)}`, { signal }),
  sameLooking: (id: string, wish: PictureWish, signal?: AbortSignal): Promise<Likeness> =>
    read(likenessSchema, `${shotPath(id)}/likeness?same=1&${pictureQuery(wish)}`, { signal }),
  smallestWords: async (id: string): Promise<SmallestWords> =>
    (await read(readableSchema, `${shotPath(id)}/readable`)).smallest,
  links: async (id: string): Promise<Link[]> =>
    (await read(linksSchema, `${shotPath(id)}/links`)).links,
  makeLink: (id: string, input: LinkInput): Promise<Link> =>
    read(linkSchema, `${shotPath(id)}/links`, sent('POST', input)),
  openedLinks: async (): Promise<Link[]> => (await read(linksSchema, '/api/links')).links,
  takeBack: (id: string) => ask(`/api/links/${id}`, { method: 'DELETE' }),
  phone: () => read(phoneSchema, '/api/phone'),
  makePhoneAddress: () => read(phoneSchema, '/api/phone', sent('POST', {})),
  withdrawPhoneAddress: (id: string) => ask(`/api/phone/${id}`, { method: 'DELETE' }),
  /** A message as a file, with what it is called. */
  mail: async (id: string, input: MailInput): Promise<{ blob: Blob; name: string }> => {
    const answer = await ask(`${shotPath(id)}/mail`, sent('POST', input));
    const name = nameInDisposition(answer.headers.get('content-disposition') ?? '');
    return { blob: await answer.blob(), name: name ?? 'picture.eml' };
  },
  /** Into the mail drop of this computer. */
  dropMail: (id: string, input: MailInput) =>
    ask(`${shotPath(id)}/mail`, sent('POST', { ...input, drop: true })),
  mailDrop: async (): Promise<Dropped[]> => (await read(mailDropSchema, '/api/mail-drop')).messages,
  remotes: async (): Promise<Remote[]> => (await read(remotesSchema, '/api/remotes')).remotes,
  addRemote: (input: RemoteInput): Promise<Remote> =>
    read(remoteSchema, '/api/remotes', sent('POST', input)),
  practiceRemote: (): Promise<Remote> =>
    read(remoteSchema, '/api/remotes/practice', { method: 'POST' }),
  changeRemote: (id: string, patch: z.input<typeof remotePatchSchema>): Promise<Remote> =>
    read(remoteSchema, `/api/remotes/${id}`, sent('PATCH', patch)),
  removeRemote: (id: string) => ask(`/api/remotes/${id}`, { method: 'DELETE' }),
  send: (id: string, remoteId: string): Promise<Sending> =>
    read(sendingSchema, `${shotPath(id)}/sendings`, sent('POST', { remoteId })),
  waitingSendings: async (): Promise<Sending[]> =>
    (await read(sendingsSchema, '/api/sendings')).sendings,
  sendAgain: (id: string): Promise<Sending> =>
    read(sendingSchema, `/api/sendings/${id}`, { method: 'POST' }),
  stopSending: (id: string) =>
    read(sendingSchema, `/api/sendings/${id}`, sent('PATCH', { state: 'stopped' })),
  dropSending: (id: string) => ask(`/api/sendings/${id}`, { method: 'DELETE' }),
  programs: (): Promise<Programs> => read(programsSchema, '/api/programs'),
  openCopy: (id: string, program: string) =>
    ask(`/api/copies/${id}/open`, sent('POST', { program })),
  copies: async (id: string): Promise<Copy[]> =>
    (await read(copiesSchema, `${shotPath(id)}/copies`)).copies,
  keep: (id: string, wish: CopyWish): Promise<Copy> =>
    read(copySchema, `${shotPath(id)}/copies`, sent('POST', wish)),
  besides: (id: string) => read(besidesSchema, `${shotPath(id)}/rest`),
  dropRest: (id: string, revision: number, others: boolean) =>
    read(revisedSchema, `${shotPath(id)}/rest`, sent('POST', { revision, others })),
  bin: (id: string) => ask(`${shotPath(id)}/bin`, { method: 'POST' }),
  restore: (id: string) => ask(`${shotPath(id)}/restore`, { method: 'POST' }),
  erase: (id: string) => ask(shotPath(id), { method: 'DELETE' }),
  folders: () => read(foldersSchema, '/api/folders'),
  places: (path: string): Promise<Places> =>
    read(placesSchema, `/api/folders/places?path=${encodeURIComponent(path)}`),
  addFolder: (input: FolderInput): Promise<Folder> =>
    read(folderSchema, '/api/folders', sent('POST', input)),
  changeFolder: (id: string, patch: Partial<FolderInput>): Promise<Folder> =>
    read(folderSchema, `/api/folders/${id}`, sent('PATCH', patch)),
  removeFolder: (id: string) => ask(`/api/folders/${id}`, { method: 'DELETE' }),
  settings: (): Promise<z.output<typeof settingsAnswerSchema>> =>
    read(settingsAnswerSchema, '/api/settings'),
  changeSettings: (patch: SettingsPatch): Promise<Settings> =>
    read(settingsSchema, '/api/settings', sent('PATCH', patch)),
  routines: async (): Promise<Routine[]> => (await read(routinesSchema, '/api/routines')).routines,
  addRoutine: (input: RoutineInput): Promise<Routine> =>
    read(routineSchema, '/api/routines', sent('POST', input)),
  changeRoutine: (id: string, patch: Partial<RoutineInput>): Promise<Routine> =>
    read(routineSchema, `/api/routines/${id}`, sent('PATCH', patch)),
  removeRoutine: (id: string) => ask(`/api/routines/${id}`, { method: 'DELETE' }),
  orderRoutines: (ids: string[]) => ask('/api/routines', sent('PUT', { ids })),
  display: (): Promise<DisplayAnswer> => read(displayAnswerSchema, '/api/display'),
  stillDisplay: (): Promise<ScreenStill> =>
    read(screenStillSchema, '/api/display/stills', { method: 'POST' }),
  heldStill: (id: string): Promise<ScreenStill> =>
    read(screenStillSchema, `/api/display/stills/${id}`),
  stillPixels: async (id: string, window?: number, alone = false): Promise<ArrayBuffer> => {
    const query = window === undefined ? '' : `?window=${window}${alone ? '&alone=1' : ''}`;
    return (await ask(`/api/display/stills/${id}/pixels${query}`)).arrayBuffer();
  },
  stillParts: async (id: string): Promise<DescribedPart[]> =>
    (await read(describedAnswerSchema, `/api/display/stills/${id}/parts`)).parts,
  dropStill: (id: string) => ask(`/api/display/stills/${id}`, { method: 'DELETE' }),
  copyOnDisplay: (id: string) => ask('/api/display/clipboard', sent('POST', { shot: id })),
};

export const thumbnailUrl = (shot: { id: string; revision: number }): string =>
  `${shotPath(shot.id)}/thumbnail?revision=${shot.revision}`;
