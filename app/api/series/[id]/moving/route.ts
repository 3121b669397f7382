import { movingQuerySchema } from '@/core/contracts/series';
import { httpDisposition } from '@/core/naming/disposition';
import { fit } from '@/server/http/body';
import { bytesAnswer, readId, route } from '@/server/http/route';
import { movingPicture } from '@/server/series/moving';

export const GET = route<{ id: string }>(async (request, params) => {
  const wish = fit(Object.fromEntries(new URL(request.url).searchParams), movingQuerySchema);
  const { bytes, name, mediaType } = await movingPicture(readId(params), wish, request.signal);
  return bytesAnswer(bytes, mediaType, {
    'Content-Disposition': httpDisposition('attachment', name),
  });
});
