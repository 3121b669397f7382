import { clipDropSchema } from '@/core/contracts/clipCopy';
import { getWriting, wantFile } from '@/server/clips/copies';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

/** Drops for good what the clip does not show. */
export const POST = route<{ id: string }>(async (request, params) => {
  const shot = readId(params);
  const drops = await readJson(request, clipDropSchema);
  const job = await wantFile(shot, { folderId: null, format: 'mp4' }, drops);
  return Response.json(await getWriting(shot, job), {
    status: 202,
    headers: { Location: `/api/clips/${shot}/copies/${job}` },
  });
});
