import { clipBeginSchema } from '@/core/contracts/clip';
import { beginRecording } from '@/server/clips/recordings';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';

export const POST = route(async (request) => {
  const wish = await readJson(request, clipBeginSchema);
  return Response.json(await beginRecording(wish), { status: 201 });
});
