import { seriesQuerySchema, type SeriesEntry } from '@/core/contracts/series';
import { fit } from '../http/body';
import { seriesEntries } from './log';
import { getSeries } from './rows';

/** Tells what became of a series' times, the last first. @throws Fault 400, 404 */
export async function entriesAnswer(
  { url }: Request,
  id: string,
  only: readonly SeriesEntry['outcome'][],
): Promise<Response> {
  const query = fit(Object.fromEntries(new URL(url).searchParams), seriesQuerySchema);
  await getSeries(id);
  return Response.json({ entries: await seriesEntries(id, query, only) });
}
