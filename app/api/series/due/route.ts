import { dueQuerySchema } from '@/core/contracts/series';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { claimForPage } from '@/server/series/ofPage';

export const POST = route(async (request) => {
  const { sources } = await readJson(request, dueQuerySchema);
  return Response.json(await claimForPage(sources));
});
