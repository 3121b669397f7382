import { dropStill } from '@/server/display/held';
import { readId, route } from '@/server/http/route';

export const DELETE = route<{ id: string }>(async (_request, params) => {
  dropStill(readId(params));
  return Promise.resolve(new Response(null, { status: 204 }));
});
