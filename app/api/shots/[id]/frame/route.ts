import { bytesAnswer, readId, route } from '@/server/http/route';
import { getFrame } from '@/server/shots/rows';

export const GET = route<{ id: string }>(async (request, params) => {
  const { bytes, sha256 } = await getFrame(readId(params));
  const etag = `"${sha256}"`;
  const headers = { ETag: etag, 'Cache-Control': 'private, no-cache' };
  if (request.headers.get('if-none-match') === etag) {
    return new Response(null, { status: 304, headers });
  }
  return bytesAnswer(bytes, 'image/png', headers);
});
