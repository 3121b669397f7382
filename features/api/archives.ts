import {
  archiveSchema,
  archivesSchema,
  type Archive,
  type ArchiveInput,
  type Archives,
  type Plan,
} from '@/core/contracts/archive';
import { ask, read, sent } from './ask';

/** What is asked of the server about everything out and in again. */
export const archivesApi = {
  archives: (): Promise<Archives> => read(archivesSchema, '/api/archives'),
  archiveInto: (input: ArchiveInput): Promise<Archive> =>
    read(archiveSchema, '/api/archives', sent('POST', input)),
  planArchives: (plan: Plan | null): Promise<Archives> =>
    read(archivesSchema, '/api/archives', sent('PATCH', { plan })),
  stopArchive: (id: string) => ask(`/api/archives/${id}`, { method: 'DELETE' }),
  bringIn: (file: File, signal: AbortSignal): Promise<Archive> =>
    read(archiveSchema, `/api/archive?as=${encodeURIComponent(file.name)}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/zip' },
      body: file,
      signal,
    }),
};

/** Where an archive is read from; of an empty query, everything. */
export const archiveUrl = (query: string): string =>
  query.trim() === '' ? '/api/archive' : `/api/archive?q=${encodeURIComponent(query.trim())}`;
