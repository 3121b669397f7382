import { readId, route } from '@/server/http/route';
import { likenessOf, sameLooking } from '@/server/keep/likeness';
import { readPictureQuery } from '@/server/keep/pictureQuery';

export const GET = route<{ id: string }>(async (request, params) => {
  const query = new URL(request.url).searchParams;
  const same = query.get('same') === '1';
  query.delete('same');
  const wish = readPictureQuery(query);
  const id = readId(params);
  const work = same ? sameLooking(id, wish, request.signal) : likenessOf(id, wish);
  return Response.json(await work);
});
