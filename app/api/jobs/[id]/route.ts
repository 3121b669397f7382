import { readId, route } from '@/server/http/route';
import { getJob, stopPage } from '@/server/take/pages';

interface Params {
  id: string;
}

export const GET = route<Params>(async (_, params) => Response.json(await getJob(readId(params))));

/** Stops what goes on; nothing of it is left. */
export const DELETE = route<Params>(async (_, params) => {
  await stopPage(readId(params));
  return new Response(null, { status: 204 });
});
