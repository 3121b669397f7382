import {
  lookGivenSchema,
  lookSchema,
  looksSchema,
  type Look,
  type LookGiven,
  type LookInput,
  type LookPatch,
} from '@/core/contracts/look';
import { ask, read, sent } from './ask';

/** What is asked of the server about looks. */
export const looksApi = {
  looks: async (): Promise<Look[]> => (await read(looksSchema, '/api/looks')).looks,
  addLook: (input: LookInput): Promise<Look> => read(lookSchema, '/api/looks', sent('POST', input)),
  changeLook: (id: string, patch: LookPatch): Promise<Look> =>
    read(lookSchema, `/api/looks/${id}`, sent('PATCH', patch)),
  removeLook: (id: string) => ask(`/api/looks/${id}`, { method: 'DELETE' }),
  giveLook: (id: string, ids: readonly string[]): Promise<LookGiven> =>
    read(lookGivenSchema, `/api/looks/${id}/shots`, sent('POST', { ids })),
};
