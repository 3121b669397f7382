import { httpDisposition } from '@/core/naming/disposition';
import { leavingTitle } from '@/core/keep/leaving';
import { safeName } from '@/core/naming/safeName';
import { bytesAnswer, readId, route } from '@/server/http/route';
import { encodeShot } from '@/server/keep/encode';
import { formats } from '@/server/formats';
import { readPictureQuery } from '@/server/keep/pictureQuery';
import { getPaintable } from '@/server/shots/rows';

export const GET = route<{ id: string }>(async (request, params) => {
  const wish = readPictureQuery(new URL(request.url).searchParams);
  const shot = await getPaintable(readId(params));
  const { bytes, width, height, own, quality, opaque } = await encodeShot(shot, wish);
  const { mediaType, extension } = formats[wish.format];
  const name = `${safeName(leavingTitle(shot))}.${extension}`;
  return bytesAnswer(bytes, mediaType, {
    // What it is called when it is put away from here.
    'Content-Disposition': httpDisposition('inline', name),
    'X-Picture-Size': `${width}x${height}`,
    'X-Picture-Own': `${own.width}x${own.height}`,
    'X-Picture-Quality': String(quality),
    'X-Picture-Transparent': opaque ? '0' : '1',
  });
});
