import { z } from 'zod';
import { describedAnswerSchema } from '@/core/contracts/display';
import {
  pageProgressSchema,
  pageStillSchema,
  type PageStill,
  type WayPage,
} from '@/core/contracts/page';
import type { DescribedPart } from '@/core/screen/parts/described';
import { ask, read, sent } from './ask';

const stillPath = (id: string): string => `/api/pages/stills/${id}`;

/** What is asked of the server about web pages and their addresses. */
export const pagesApi = {
  /** Takes as long as the page does; ending it stops that. */
  stillPage: (id: string, page: WayPage, signal?: AbortSignal): Promise<PageStill> =>
    read(pageStillSchema, stillPath(id), { ...sent('PUT', page), signal }),
  pageProgress: async (id: string): Promise<string | null> =>
    (await read(pageProgressSchema, stillPath(id))).progress,
  pageFrame: async (id: string): Promise<Blob> => (await ask(`${stillPath(id)}/frame`)).blob(),
  pageParts: async (id: string): Promise<DescribedPart[]> =>
    (await read(describedAnswerSchema, `${stillPath(id)}/parts`)).parts,
  dropPage: (id: string) => ask(stillPath(id), { method: 'DELETE' }),
  practiceSite: async (): Promise<string> =>
    (await read(z.object({ address: z.url() }), '/api/pages/practice', { method: 'POST' })).address,
};
