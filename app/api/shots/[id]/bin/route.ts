import { readId, route } from '@/server/http/route';
import { binShot } from '@/server/shots/store';

export const POST = route<{ id: string }>(async (_, params) => {
  await binShot(readId(params));
  return new Response(null, { status: 204 });
});
