import { readId, route } from '@/server/http/route';
import { bringPicture } from '@/server/series/brought';

export const POST = route<{ id: string }>(async (request, params) => {
  await bringPicture(readId(params), request);
  return new Response(null, { status: 204 });
});
