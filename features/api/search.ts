import { z } from 'zod';
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
import { foundPageSchema } from '@/core/contracts/shot';
import { ask, read, sent, shotPath } from './ask';

/** What is asked of the server about searching, words and tags. */
export const searchApi = {
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
};
