import {
  seriesDaysSchema,
  seriesEntriesSchema,
  seriesListSchema,
  seriesSchema,
  type Series,
  type SeriesDay,
  type SeriesEntry,
  type SeriesInput,
  type SeriesPatch,
} from '@/core/contracts/series';
import { ask, read, sent } from './ask';

const at = (id: string): string => `/api/series/${id}`;

/** What is asked of the server about series. */
export const seriesApi = {
  allSeries: async (): Promise<Series[]> => (await read(seriesListSchema, '/api/series')).series,
  series: (id: string): Promise<Series> => read(seriesSchema, at(id)),
  addSeries: (input: SeriesInput): Promise<Series> =>
    read(seriesSchema, '/api/series', sent('POST', input)),
  changeSeries: (id: string, patch: SeriesPatch): Promise<Series> =>
    read(seriesSchema, at(id), sent('PATCH', patch)),
  removeSeries: (id: string) => ask(at(id), { method: 'DELETE' }),
  takeSeriesNow: (id: string): Promise<Series> =>
    read(seriesSchema, `${at(id)}/now`, { method: 'POST' }),
  seriesDays: async (id: string): Promise<SeriesDay[]> =>
    (await read(seriesDaysSchema, `${at(id)}/days`)).days,
  /** What became of its times on a day, the last first. */
  seriesTimes: async (id: string, day: string): Promise<SeriesEntry[]> =>
    (await read(seriesEntriesSchema, `${at(id)}/times?day=${day}`)).entries,
};
