import { bytesAnswer, readId, route } from '@/server/http/route';
import { thumbnail } from '@/server/pictures/painted';

/** With ?revision= in its address an answer never changes, so the browser may hold on to it. */
export const GET = route<{ id: string }>(async (request, params) => {
  const lasting = new URL(request.url).searchParams.has('revision');
  return bytesAnswer(await thumbnail(readId(params)), 'image/webp', {
    'Cache-Control': lasting ? 'private, max-age=31536000, immutable' : 'no-store',
  });
});
