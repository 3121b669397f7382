import { lookShotsSchema } from '@/core/contracts/look';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { getLook } from '@/server/looks/looks';
import { giveLook } from '@/server/shots/giveLook';

export const POST = route<{ id: string }>(async (request, params) => {
  const { ids } = await readJson(request, lookShotsSchema);
  return Response.json(await giveLook(await getLook(readId(params)), ids));
});
