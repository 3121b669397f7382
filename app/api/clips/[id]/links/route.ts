import { clipLinkSchema } from '@/core/contracts/clipCopy';
import { linkFilm } from '@/server/clips/link';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  const input = await readJson(request, clipLinkSchema);
  return Response.json(await linkFilm(readId(params), input), { status: 201 });
});
