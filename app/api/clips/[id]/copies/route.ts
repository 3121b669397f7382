import { clipWishSchema } from '@/core/contracts/clipCopy';
import { getWriting, wantFile } from '@/server/clips/copies';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (request, params) => {
  const shot = readId(params);
  const job = await wantFile(shot, await readJson(request, clipWishSchema));
  return Response.json(await getWriting(shot, job), {
    status: 202,
    headers: { Location: `/api/clips/${shot}/copies/${job}` },
  });
});
