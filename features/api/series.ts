import {
  dueSchema,
  seriesDaysSchema,
  seriesEntriesSchema,
  seriesListSchema,
  seriesSchema,
  type MovingWish,
  type PageDue,
  type PageSource,
  type Series,
  type SeriesDay,
  type SeriesEntry,
  type SeriesInput,
  type SeriesPatch,
} from '@/core/contracts/series';
import { ask, read, sent } from './ask';

const path = (id: string): string => `/api/series/${id}`;

/** What is asked of the server about series. */
export const seriesApi = {
  allSeries: async (): Promise<Series[]> => (await read(seriesListSchema, '/api/series')).series,
  series: (id: string): Promise<Series> => read(seriesSchema, path(id)),
  addSeries: (input: SeriesInput): Promise<Series> =>
    read(seriesSchema, '/api/series', sent('POST', input)),
  changeSeries: (id: string, patch: SeriesPatch): Promise<Series> =>
    read(seriesSchema, path(id), sent('PATCH', patch)),
  removeSeries: (id: string) => ask(path(id), { method: 'DELETE' }),
  takeSeriesNow: (id: string): Promise<Series> =>
    read(seriesSchema, `${path(id)}/now`, { method: 'POST' }),
  seriesDays: async (id: string): Promise<SeriesDay[]> =>
    (await read(seriesDaysSchema, `${path(id)}/days`)).days,
  /** Its pictures, one after the other in one file. */
  seriesMoving: async (id: string, wish: MovingWish): Promise<Blob> => {
    const said = Object.entries(wish).map(([name, value]) => [name, String(value)]);
    return (await ask(`${path(id)}/moving?${new URLSearchParams(said).toString()}`)).blob();
  },
  /** What this page takes now for a series, of the sources that it has. */
  claimSeriesDue: (sources: readonly PageSource[]): Promise<PageDue> =>
    read(dueSchema, '/api/series/due', sent('POST', { sources })),
  bringSeriesPicture: (id: string, form: FormData) =>
    ask(`/api/series/due/${id}`, { method: 'POST', body: form }),
  missSeriesDue: (id: string, why: string) =>
    ask(`/api/series/due/${id}/missed`, sent('POST', { why })),
  /** What it took last before a moment; null where that was the first. */
  seriesShotBefore: async (id: string, at: string): Promise<SeriesEntry | null> => {
    const query = new URLSearchParams({ before: at, limit: '1' });
    const { entries } = await read(seriesEntriesSchema, `${path(id)}/shots?${query.toString()}`);
    return entries[0] ?? null;
  },
  /** What became of its times on a day, the last first: those before a moment where that is said. */
  seriesTimes: async (id: string, day: string, before?: string): Promise<SeriesEntry[]> => {
    const query = new URLSearchParams({ day, ...(before && { before }) });
    return (await read(seriesEntriesSchema, `${path(id)}/times?${query.toString()}`)).entries;
  },
};
