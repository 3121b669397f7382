import { readId, route } from '@/server/http/route';
import { getJob, stopSlow } from '@/server/take/slow';

interface Params {
  id: string;
}

export const GET = route<Params>(async (_, params) => Response.json(await getJob(readId(params))));

/** Stops what goes on; nothing of it is left. */
export const DELETE = route<Params>(async (_, params) => {
  await stopSlow(readId(params));
  return new Response(null, { status: 204 });
});
