import { seriesPatchSchema } from '@/core/contracts/series';
import { readJson } from '@/server/http/body';
import { readId, route } from '@/server/http/route';
import { getSeries } from '@/server/series/rows';
import { changeSeries, removeSeries } from '@/server/series/series';

export const GET = route<{ id: string }>(async (_request, params) =>
  Response.json(await getSeries(readId(params))),
);

export const PATCH = route<{ id: string }>(async (request, params) =>
  Response.json(await changeSeries(readId(params), await readJson(request, seriesPatchSchema))),
);

export const DELETE = route<{ id: string }>(async (_request, params) => {
  await removeSeries(readId(params));
  return new Response(null, { status: 204 });
});
