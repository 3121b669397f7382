import {
  seriesEntriesSchema,
  seriesSchema,
  type Series,
  type SeriesInput,
  type SeriesPatch,
} from '@/core/contracts/series';
import { POST as make } from '@/app/api/series/route';
import * as one from '@/app/api/series/[id]/route';
import type { GET as shots } from '@/app/api/series/[id]/shots/route';
import { sql } from '../db/sql';
import { workAlone, workDue } from '../jobs/run';
import { PAGE } from '../series/log';
import '../series/take';
import { tick } from '../series/tick';
import { at, jsonRequest, request } from './setup';

export const wished = (more: Partial<SeriesInput> = {}): SeriesInput => ({
  name: 'Sensors',
  what: { source: 'desk', kind: 'window', window: 'sensors' },
  times: { when: { every: 60 } },
  ...more,
});
export const post = (input: unknown) => make(jsonRequest('/api/series', 'POST', input), at({}));
export const begun = async (more: Partial<SeriesInput> = {}): Promise<Series> =>
  seriesSchema.parse(await (await post(wished(more))).json());
export const now = async ({ id }: Series): Promise<Series> =>
  seriesSchema.parse(await (await one.GET(request('/x'), at({ id }))).json());
export const change = ({ id }: Series, patch: SeriesPatch) =>
  one.PATCH(jsonRequest('/x', 'PATCH', patch), at({ id }));
export const entries = async (ask: typeof shots, { id }: Series, query = '') =>
  seriesEntriesSchema.parse(await (await ask(request(`/x${query}`), at({ id }))).json()).entries;

/** The moment of its next time, ms. */
export const dueOf = ({ next }: Series): number => Date.parse(next ?? '');
/** A moment, set so that it is now for what is due: a take is not made for times long gone. */
export async function comes(series: Series): Promise<number> {
  const shift = Date.now() - dueOf(series);
  await sql()`update series set due_at = due_at + ${shift} * interval '1 ms',
    times = jsonb_set(times, '{begins}', to_jsonb(to_char(
      ((times->>'begins')::timestamptz + ${shift} * interval '1 ms') at time zone 'UTC',
      'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'))) where id = ${series.id}`;
  return dueOf(await now(series));
}
export async function taken(at: number): Promise<void> {
  await tick(at);
  await workDue();
  await workAlone(PAGE);
}
