import { z } from 'zod';
import { renamedSchema, type Renamed } from '@/core/contracts/folder';
import {
  revisedSchema,
  besidesSchema,
  shotPageSchema,
  shotSchema,
  stepsSchema,
  storedSchema,
  type Shot,
  type ShotChange,
} from '@/core/contracts/shot';
import { ask, read, sent, shotPath } from './ask';

/** What is asked of the server about shots and their documents. */
export const shotsApi = {
  shot: (id: string): Promise<Shot> => read(shotSchema, shotPath(id)),
  shots: (options: {
    before?: string | null;
    /** Those newer than this, the nearest first. */
    after?: string;
    limit?: number;
    bin?: boolean;
    /** Those only that no series took. */
    byHand?: boolean;
  }) => {
    const query = new URLSearchParams({
      limit: String(options.limit ?? 60),
      bin: options.bin ? '1' : '0',
      byHand: options.byHand ? '1' : '0',
    });
    if (options.before) query.set('before', options.before);
    if (options.after) query.set('after', options.after);
    return read(shotPageSchema, `/api/shots?${query.toString()}`);
  },
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
  besides: (id: string) => read(besidesSchema, `${shotPath(id)}/rest`),
  dropRest: (id: string, revision: number, others: boolean) =>
    read(revisedSchema, `${shotPath(id)}/rest`, sent('POST', { revision, others })),
  bin: (id: string) => ask(`${shotPath(id)}/bin`, { method: 'POST' }),
  restore: (id: string) => ask(`${shotPath(id)}/restore`, { method: 'POST' }),
  erase: (id: string) => ask(shotPath(id), { method: 'DELETE' }),
};
