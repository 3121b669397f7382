import { followedSchema } from '@/core/contracts/clip';
import { addFollowed } from '@/server/clips/followed';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  await addFollowed(readId(params), await readJson(request, followedSchema));
  return new Response(null, { status: 204 });
});
