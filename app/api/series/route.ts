import { seriesInputSchema } from '@/core/contracts/series';
import { readJson } from '@/server/http/body';
import { route } from '@/server/http/route';
import { listSeries } from '@/server/series/rows';
import { addSeries } from '@/server/series/series';

export const GET = route(async () => Response.json({ series: await listSeries() }));

export const POST = route(async (request) =>
  Response.json(await addSeries(await readJson(request, seriesInputSchema)), { status: 201 }),
);
