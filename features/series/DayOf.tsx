import { useState } from 'react';
import type { Comparison } from '@/core/contracts/compare';
import type { OnlyChanged, Series, SeriesEntry, SeriesPatch } from '@/core/contracts/series';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { useKey } from '../keys/useKey';
import { followLink, navigate } from '../thread/navigate';
import { Button } from '../ui/Button';
import { Problem } from '../ui/Problem';
import { Toggle } from '../ui/Toggle';
import { Areas, withArea, type Drawing } from './Areas';
import { DayTimes } from './DayTimes';
import { Moving } from './Moving';
import { useDayTimes } from './useDayTimes';
import { useWatched } from './useWatched';
import { Looking, type Outline } from './Looking';

interface Props {
  series: Series;
  day: string;
  /** @returns whether it was done */
  onChange: (patch: SeriesPatch) => Promise<boolean>;
}

type Taken = SeriesEntry & { shot: NonNullable<SeriesEntry['shot']> };
const isTaken = (entry: SeriesEntry): entry is Taken => entry.shot !== null;

/** A day of a series: its times, and the picture of one of them. */
export function DayOf({ series, day, onChange }: Props) {
  const { id, times } = series;
  const [watched, watch] = useWatched(series, onChange);
  const { entries: told, problem, again, earlier } = useDayTimes(id, day);
  const [chosen, setChosen] = useState<string | null>(null);
  const [outlined, setOutlined] = useState(true);
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const entries = told ?? [];
  const taken = entries.filter(isTaken);
  const entry = entries.find((e) => e.id === chosen) ?? taken.at(-1) ?? entries.at(-1);
  const at = taken.findIndex((e) => e.id === entry?.id);
  const shot = taken[at];
  const before = useBefore(id, taken, at);
  const found = useDifferences(before ?? undefined, outlined ? shot : undefined);
  const step = (by: number) => {
    const next = at < 0 ? taken.at(-1) : taken[at + by];
    if (next) setChosen(next.id);
  };
  useKey(['arrowleft', 'arrowright'], ({ key }) => step(key === 'ArrowLeft' ? -1 : 1));
  useKey('enter', () => shot && navigate(`/shots/${shot.shot.id}`));
  useKey('escape', () => (drawing ? setDrawing(null) : navigate('/series')));
  return (
    <>
      <section aria-label="Times" className="w-[230px] shrink-0 overflow-auto">
        {problem && (
          <Problem action={<Button onClick={again}>Try again</Button>}>{problem}</Problem>
        )}
        {earlier && (
          <Button className="mb-1 w-full" onClick={earlier}>
            Earlier times
          </Button>
        )}
        {told && (
          <DayTimes
            entries={entries}
            zone={times.zone}
            chosen={entry?.id ?? null}
            onChoose={setChosen}
          />
        )}
      </section>
      <section aria-label="Picture" className="min-w-0 grow" data-home tabIndex={-1}>
        {shot ? (
          <>
            <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
              <a
                href={`/shots/${shot.shot.id}`}
                onClick={followLink}
                className="min-w-0 truncate text-petrol underline"
              >
                {shot.title}
              </a>
              <div className="flex items-center gap-4">
                <Toggle label="Outline what differs" checked={outlined} onChange={setOutlined} />
                <Moving series={series} day={day} />
              </div>
            </div>
            <Looking
              src={`/api/shots/${shot.shot.id}/picture?format=png&words=0&r=${shot.shot.revision}`}
              name={shot.title ?? 'A picture of the series'}
              outlines={outlinesOf(found, drawing ? watched : null)}
              onDrawn={
                drawing && watched
                  ? (area) => {
                      watch(withArea(watched, drawing, area));
                      setDrawing(null);
                    }
                  : null
              }
            />
            <p role="status" className="mt-2 text-[13px] text-soft">
              {differsInWords(found, before)}
            </p>
          </>
        ) : (
          <p className="p-3 text-soft">{entry?.why ?? 'There is no picture of that time.'}</p>
        )}
        {watched && shot && (
          <Areas watched={watched} drawing={drawing} onDraw={setDrawing} onChange={watch} />
        )}
      </section>
    </>
  );
}

/** What was taken before one of a day, or on a day before; null where it was the first. */
function useBefore(id: string, taken: readonly Taken[], at: number): Taken | null | undefined {
  const [first] = taken;
  const earlier = useAnswer(
    async () => (first && at === 0 ? await api.seriesShotBefore(id, first.at) : null),
    `${at === 0 ? (first?.id ?? '') : ''} before`,
  );
  if (at > 0) return taken[at - 1];
  const { answer, asking } = earlier;
  return answer && isTaken(answer) ? answer : asking ? undefined : null;
}

/** What a picture differs by from the one before it. */
function useDifferences(before: Taken | undefined, shot: Taken | undefined): Comparison | null {
  const { answer } = useAnswer(
    async () =>
      before && shot ? await api.compare(before.shot.id, shot.shot.id, 'untouched') : null,
    `${before?.id ?? ''} ${shot?.id ?? ''}`,
  );
  return answer;
}

function outlinesOf(found: Comparison | null, watched: OnlyChanged | null): Outline[] {
  if (watched) {
    const { watch, ignore } = watched;
    return [
      ...(watch ? [{ at: watch, look: 'watched' as const }] : []),
      ...ignore.map((at) => ({ at, look: 'ignored' as const })),
    ];
  }
  // Places are of the one before; the picture that is seen may be shifted against it.
  return (found?.places ?? []).map(({ x, y, ...size }) => ({
    at: { x: x - (found?.shift.x ?? 0), y: y - (found?.shift.y ?? 0), ...size },
    look: 'differs' as const,
  }));
}

function differsInWords(found: Comparison | null, before: Taken | null | undefined): string {
  if (before === null) return 'The first of this series.';
  if (!found) return '';
  const { length } = found.places;
  if (length === 0) return 'It looks the same as the one before.';
  return length === 1
    ? 'Differs in one place from the one before.'
    : `Differs in ${length} places from the one before.`;
}
