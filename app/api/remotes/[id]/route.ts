import { readId, route } from '@/server/http/route';
import { removeRemote } from '@/server/remote/remotes';

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await removeRemote(readId(params));
  return new Response(null, { status: 204 });
});
