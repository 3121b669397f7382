import { lookPatchSchema } from '@/core/contracts/look';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { changeLook, removeLook } from '@/server/looks/looks';

export const PATCH = route<{ id: string }>(async (request, params) =>
  Response.json(await changeLook(readId(params), await readJson(request, lookPatchSchema))),
);

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await removeLook(readId(params));
  return new Response(null, { status: 204 });
});
