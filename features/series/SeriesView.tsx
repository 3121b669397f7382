import { Camera, Pause, PencilLine, Play, Square, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Series, SeriesPatch } from '@/core/contracts/series';
import { timesInWords } from '@/core/series/words';
import { zoneOf } from '@/core/series/zone';
import { writtenDay } from '@/core/values/day';
import { messageOf } from '../api/ask';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { notify } from '../notices/noticeStore';
import { followLink, navigate } from '../thread/navigate';
import { Thread } from '../thread/Thread';
import { Button } from '../ui/Button';
import { Confirm } from '../ui/Confirm';
import { IconButton } from '../ui/IconButton';
import { Problem } from '../ui/Problem';
import { DayOf } from './DayOf';
import { Calendar } from './Calendar';
import { EditSeries } from './EditSeries';
import { countsInWords, standInWords, whatInWords } from './words';

/** It is looked again so often what became of it, ms. */
const AGAIN = 3_000;
const icon = { size: 18, strokeWidth: 1.75 };

const dayNow = (zone: string): string => writtenDay(zoneOf(zone).dayOf(Date.now()));

/** One series: its calendar, and what it took. */
export function SeriesView({ id }: { id: string }) {
  const {
    answer: series,
    problem,
    again,
  } = useAnswer(() => api.series(id), id, {
    ...{ keep: true, next: () => AGAIN },
  });
  const days = useAnswer(() => api.seriesDays(id), `${id} days`, {
    ...{ keep: true, next: () => AGAIN },
  });
  const [chosen, setChosen] = useState<string | null>(null);
  useEffect(() => {
    document.title = `${series?.name ?? 'Series'} – Rezzik`;
  }, [series?.name]);
  const change = async (patch: SeriesPatch) => {
    const isDone = await attempt(() => api.changeSeries(id, patch));
    again();
    return isDone;
  };
  const today = series && dayNow(series.times.zone);
  const day = chosen ?? days.answer?.at(-1)?.day ?? today;
  return (
    <>
      <Thread
        place="shelf"
        actions={series && <Acts series={series} onChange={change} onDone={again} />}
      />
      <main className="flex min-h-0 grow gap-5 overflow-auto p-5">
        <div className="w-[340px] shrink-0">
          <p className="text-[13px] text-soft">
            <a href="/series" onClick={followLink} className="text-petrol underline">
              Series
            </a>{' '}
            ›
          </p>
          <h1 className="font-name text-2xl break-words">{series?.name ?? 'Series'}</h1>
          {problem && (
            <Problem action={<Button onClick={again}>Try again</Button>}>{problem}</Problem>
          )}
          {series && (
            <>
              <p className="text-soft">{timesInWords(series.times)}</p>
              <p className="truncate text-soft" title={whatInWords(series)}>
                {whatInWords(series)}
              </p>
              <p role="status" className="mt-1 font-bold">
                {standInWords(series)}
              </p>
              <p className="mb-3 text-[13px] text-soft">
                {countsInWords(series)}. By the clock of {series.times.zone}.
              </p>
            </>
          )}
          {today && day && (
            <Calendar days={days.answer ?? []} today={today} chosen={day} onChoose={setChosen} />
          )}
        </div>
        {series && day && <DayOf series={series} day={day} onChange={change} />}
      </main>
    </>
  );
}

async function attempt(act: () => Promise<unknown>): Promise<boolean> {
  try {
    await act();
    return true;
  } catch (error) {
    notify({ key: 'series', tone: 'bad', title: 'Not done', lines: [messageOf(error)] });
    return false;
  }
}

interface ActsProps {
  series: Series;
  onChange: (patch: SeriesPatch) => Promise<boolean>;
  onDone: () => void;
}

/** What can be done with it. */
function Acts({ series: { id, name, state, ...series }, onChange, onDone }: ActsProps) {
  const [asked, setAsked] = useState<'edit' | 'end' | 'remove' | null>(null);
  const close = () => setAsked(null);
  return (
    <>
      {state !== 'ended' && (
        <>
          {state === 'running' ? (
            <Button icon={<Pause {...icon} />} onClick={() => void onChange({ state: 'paused' })}>
              Pause
            </Button>
          ) : (
            <Button icon={<Play {...icon} />} onClick={() => void onChange({ state: 'running' })}>
              Go on
            </Button>
          )}
          <Button icon={<PencilLine {...icon} />} onClick={() => setAsked('edit')}>
            Edit
          </Button>
          <Button icon={<Square {...icon} />} onClick={() => setAsked('end')}>
            End
          </Button>
        </>
      )}
      <IconButton label="Remove the series" onClick={() => setAsked('remove')}>
        <Trash2 {...icon} />
      </IconButton>
      {state !== 'ended' && (
        <Button
          look="next"
          icon={<Camera {...icon} />}
          onClick={() => void attempt(() => api.takeSeriesNow(id)).then(onDone)}
        >
          Take one now
        </Button>
      )}
      {asked === 'edit' && (
        <EditSeries
          series={{ id, name, state, ...series }}
          onClose={close}
          onSaved={() => {
            close();
            onDone();
          }}
        />
      )}
      <Confirm
        open={asked === 'end'}
        title={`End “${name}”?`}
        description="It takes nothing more and cannot be begun again. Its shots and its calendar stay."
        verb="End it"
        onYes={() => void onChange({ state: 'ended' })}
        onClose={close}
      />
      <Confirm
        open={asked === 'remove'}
        title={`Remove “${name}”?`}
        description="Its calendar goes, and it takes nothing more. Its shots stay on the Shelf."
        verb="Remove it"
        onYes={() =>
          void attempt(() => api.removeSeries(id)).then((gone) => gone && navigate('/series'))
        }
        onClose={close}
      />
    </>
  );
}
