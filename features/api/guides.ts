import {
  guideConflictSchema,
  guideCopiesSchema,
  guideFilmsAnswerSchema,
  guidesSchema,
  storedGuideSchema,
  type GuideCopies,
  type GuideCopyInput,
  type GuideFilms,
  type GuideFormat,
  type GuideInput,
  type GuidePatch,
  type GuideSummary,
  type StoredGuide,
} from '@/core/contracts/guide';
import { linkSchema, type Link, type LinkInput } from '@/core/contracts/link';
import { ApiError, ask, read, sent } from './ask';

const at = (id: string): string => `/api/guides/${id}`;

/** What is asked of the server about guides. */
export const guidesApi = {
  guides: async (): Promise<GuideSummary[]> => (await read(guidesSchema, '/api/guides')).guides,
  guide: (id: string): Promise<StoredGuide> => read(storedGuideSchema, at(id)),
  addGuide: (input: GuideInput): Promise<StoredGuide> =>
    read(storedGuideSchema, '/api/guides', sent('POST', input)),
  changeGuide: (id: string, patch: GuidePatch, keepalive = false): Promise<StoredGuide> =>
    read(storedGuideSchema, at(id), { ...sent('PATCH', patch), keepalive }),
  removeGuide: (id: string) => ask(at(id), { method: 'DELETE' }),
  guideFile: async (id: string, format: GuideFormat, signal?: AbortSignal): Promise<Blob> =>
    (await ask(`${at(id)}/files?format=${format}`, signal ? { signal } : {})).blob(),
  /** How far the clips are that are written to move in it; null while none is. */
  guideFilms: async (id: string, signal: AbortSignal): Promise<GuideFilms | null> =>
    (await read(guideFilmsAnswerSchema, `${at(id)}/films`, { signal })).films,
  keepGuide: (id: string, input: GuideCopyInput, signal: AbortSignal): Promise<GuideCopies> =>
    read(guideCopiesSchema, `${at(id)}/copies`, { ...sent('POST', input), signal }),
  linkGuide: (id: string, input: LinkInput, signal: AbortSignal): Promise<Link> =>
    read(linkSchema, `${at(id)}/links`, { ...sent('POST', input), signal }),
};

/** The guide as it is stored, where a change was refused because somebody changed it meanwhile. */
export function currentGuide(error: unknown): StoredGuide | null {
  if (!(error instanceof ApiError) || error.code !== 'stale') return null;
  return guideConflictSchema.safeParse(error.body).data?.current ?? null;
}
