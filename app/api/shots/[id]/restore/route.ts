import { readId, route } from '@/server/http/route';
import { restoreShot } from '@/server/shots/store';

export const POST = route<{ id: string }>(async (_, params) => {
  await restoreShot(readId(params));
  return new Response(null, { status: 204 });
});
