import { CalendarClock } from 'lucide-react';
import { timesInWords } from '@/core/series/words';
import type { Series } from '@/core/contracts/series';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { Thumbnail } from '../pictures/Thumbnail';
import { followLink, navigate } from '../thread/navigate';
import { ListPage } from '../thread/ListPage';
import { countsInWords, standInWords, whatInWords } from './words';

const icon = <CalendarClock size={18} strokeWidth={1.75} />;

/** It is looked again so often how they stand, ms. */
const AGAIN = 5_000;

/** All series: those that go on first. */
export function SeriesListView() {
  const { answer, problem, again } = useAnswer(() => api.allSeries(), 'series', {
    ...{ keep: true, next: () => AGAIN },
  });
  return (
    <ListPage
      title="Series"
      make={{ label: 'New series', icon, act: () => navigate('/series/new') }}
      problem={problem}
      again={again}
    >
      {answer?.length === 0 && (
        <p className="max-w-md text-soft">
          There is no series yet. A series takes by the clock while nobody is there: the same place
          again and again, or at set times.
        </p>
      )}
      <ul className="flex max-w-[900px] flex-col gap-3">
        {answer?.map((series) => (
          <li key={series.id}>
            <Card series={series} />
          </li>
        ))}
      </ul>
    </ListPage>
  );
}

function Card({ series }: { series: Series }) {
  const { id, name, last, times } = series;
  return (
    <a
      href={`/series/${id}`}
      onClick={followLink}
      className="flex overflow-hidden rounded-[9px] border border-line bg-card hover:border-petrol"
    >
      <span className="block h-28 w-44 shrink-0 bg-desk p-2">
        {last && <Thumbnail shot={last} />}
      </span>
      <span className="block min-w-0 grow p-3">
        <span className="block truncate font-name text-base">{name}</span>
        <span className="block truncate text-soft">
          {timesInWords(times)} · {whatInWords(series)}
        </span>
        <span className="mt-1 block font-bold">{standInWords(series)}</span>
        <span className="block text-[13px] text-soft">{countsInWords(series)}</span>
      </span>
    </a>
  );
}
