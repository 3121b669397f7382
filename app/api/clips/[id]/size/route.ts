import { clipSizeSchema } from '@/core/contracts/clipCopy';
import { guessSize } from '@/server/clips/guess';
import { fit } from '@/server/http/body';
import { readId, route } from '@/server/http/route';

export const GET = route<{ id: string }>(async (request, params) => {
  const wish = fit(Object.fromEntries(new URL(request.url).searchParams), clipSizeSchema);
  return Response.json({ bytes: await guessSize(readId(params), wish, request.signal) });
});
