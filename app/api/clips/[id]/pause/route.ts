import { clipPauseSchema } from '@/core/contracts/clip';
import { pauseHere } from '@/server/clips/display';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const PUT = route<{ id: string }>(async (request, params) => {
  const { paused } = await readJson(request, clipPauseSchema);
  await pauseHere(readId(params), paused);
  return new Response(null, { status: 204 });
});
