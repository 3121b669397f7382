import { remotePatchSchema } from '@/core/contracts/remote';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { changeRemote, removeRemote } from '@/server/remote/remotes';

export const PATCH = route<{ id: string }>(async (request, params) => {
  const patch = await readJson(request, remotePatchSchema);
  return Response.json(await changeRemote(readId(params), patch));
});

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await removeRemote(readId(params));
  return new Response(null, { status: 204 });
});
