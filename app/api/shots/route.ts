import { z } from 'zod';
import { limits } from '@/core/values/limits';
import { orders, queryText } from '@/core/contracts/search';
import { fit } from '@/server/http/body';
import { route } from '@/server/http/route';
import { findShots } from '@/server/search/find';
import { listShots } from '@/server/shots/list';
import { readShotForm } from '@/server/shots/readForm';
import { storeShot } from '@/server/shots/store';

const querySchema = z.object({
  before: z.string().optional(),
  after: z.string().optional(),
  limit: z.coerce.number().int().min(1).max(limits.pageSize).default(60),
  bin: z.enum(['0', '1']).default('0'),
  q: queryText.default(''),
  order: z.enum(orders).default('day'),
  /** Those only that no series took; not where something is looked for. */
  byHand: z.enum(['0', '1']).default('0'),
});

export const GET = route(async (request) => {
  const query = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  const asked = { ...query, bin: query.bin === '1', byHand: query.byHand === '1' };
  return Response.json(await (query.q.trim() ? findShots(asked) : listShots(asked)));
});

export const POST = route(async (request) =>
  Response.json(await storeShot(await readShotForm(request)), { status: 201 }),
);
