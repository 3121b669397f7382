import { readId, route } from '@/server/http/route';
import { takeNow } from '@/server/series/series';

export const POST = route<{ id: string }>(async (_request, params) =>
  Response.json(await takeNow(readId(params)), { status: 202 }),
);
