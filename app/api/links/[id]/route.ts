import { readId, route } from '@/server/http/route';
import { takeBack } from '@/server/links/links';

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await takeBack(readId(params));
  return new Response(null, { status: 204 });
});
