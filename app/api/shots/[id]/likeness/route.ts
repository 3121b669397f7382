import { readId, route } from '@/server/http/route';
import { likenessOf, sameLooking } from '@/server/keep/likeness';
import { readPictureQuery } from '@/server/keep/pictureQuery';
import { getPaintable } from '@/server/shots/rows';

export const GET = route<{ id: string }>(async (request, params) => {
  const query = new URL(request.url).searchParams;
  const same = query.get('same') === '1';
  query.delete('same');
  const wish = readPictureQuery(query);
  const shot = await getPaintable(readId(params));
  const work = same ? sameLooking(shot, wish, request.signal) : likenessOf(shot, wish);
  return Response.json(await work);
});
