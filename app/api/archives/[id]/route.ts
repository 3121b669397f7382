import { stopArchive } from '@/server/archive/fromFile';
import { getArchive } from '@/server/archive/rows';
import { readId, route } from '@/server/http/route';

interface Params {
  id: string;
}

export const GET = route<Params>(async (_, params) =>
  Response.json(await getArchive(readId(params))),
);

/** Stops what goes on. */
export const DELETE = route<Params>(async (_, params) => {
  await stopArchive(readId(params));
  return new Response(null, { status: 204 });
});
