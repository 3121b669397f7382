import { z } from 'zod';
import { limits } from '@/core/contracts/limits';
import { fit } from '@/server/http/body';
import { route } from '@/server/http/route';
import { listShots } from '@/server/shots/list';
import { readShotForm } from '@/server/shots/readForm';
import { storeShot } from '@/server/shots/store';

const querySchema = z.object({
  before: z.string().optional(),
  after: z.string().optional(),
  limit: z.coerce.number().int().min(1).max(limits.pageSize).default(60),
  bin: z.enum(['0', '1']).default('0'),
});

export const GET = route(async (request) => {
  const query = fit(Object.fromEntries(new URL(request.url).searchParams), querySchema);
  return Response.json(await listShots({ ...query, bin: query.bin === '1' }));
});

export const POST = route(async (request) =>
  Response.json(await storeShot(await readShotForm(request)), { status: 201 }),
);
