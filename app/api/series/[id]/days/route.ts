import { readId, route } from '@/server/http/route';
import { seriesDays } from '@/server/series/log';
import { getSeries } from '@/server/series/rows';

export const GET = route<{ id: string }>(async (_request, params) => {
  const { id } = await getSeries(readId(params));
  return Response.json({ days: await seriesDays(id) });
});
