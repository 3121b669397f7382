import { bytesAnswer, readId, route } from '@/server/http/route';
import { encodeShot } from '@/server/keep/encode';
import { formats } from '@/server/keep/formats';
import { readPictureQuery } from '@/server/keep/pictureQuery';
import { getPaintable } from '@/server/shots/rows';

export const GET = route<{ id: string }>(async (request, params) => {
  const wish = readPictureQuery(new URL(request.url).searchParams);
  const { bytes, width, height, quality, opaque } = await encodeShot(
    await getPaintable(readId(params)),
    wish,
  );
  return bytesAnswer(bytes, formats[wish.format].mediaType, {
    'X-Picture-Size': `${width}x${height}`,
    'X-Picture-Quality': String(quality),
    'X-Picture-Transparent': opaque ? '0' : '1',
  });
});
