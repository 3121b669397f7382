import { stillRecorded } from '@/server/clips/recordings';
import { readId, route } from '@/server/http/route';

export const POST = route<{ id: string }>(async (_, params) => {
  await stillRecorded(readId(params));
  return new Response(null, { status: 204 });
});
