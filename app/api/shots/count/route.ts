import { z } from 'zod';
import { queryText } from '@/core/contracts/search';
import { fit } from '@/server/http/body';
import { route } from '@/server/http/route';
import { countShots } from '@/server/search/find';

const querySchema = z.object({ q: queryText, bin: z.enum(['0', '1']).default('0') });

export const GET = route(async (request) => {
  const { q, bin } = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  return Response.json(await countShots(q, bin === '1'));
});
