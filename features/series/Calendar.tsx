import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { SeriesDay } from '@/core/contracts/series';
import { week } from '@/core/series/words';
import { shifted, weeksOf, writtenDay, type Day } from '@/core/values/day';
import { chosenLook, classes } from '../ui/classes';
import { formatCount } from '../ui/format';
import { IconButton } from '../ui/IconButton';
import { Radio, Radios } from '../ui/Radios';

interface Props {
  /** Those on which there were times. */
  days: readonly SeriesDay[];
  /** As 2026-03-29. */
  today: string;
  chosen: string;
  onChoose: (day: string) => void;
}

const partsOf = (written: string): Day => {
  const [year = 0, month = 1, day = 1] = written.split('-').map(Number);
  return { year, month, day };
};

const named = (written: string, how: Intl.DateTimeFormatOptions): string =>
  new Intl.DateTimeFormat(undefined, { ...how, timeZone: 'UTC' }).format(new Date(written));

function told({ taken, unchanged, missed }: SeriesDay): string {
  const parts = [
    taken > 0 && `${formatCount(taken)} taken`,
    unchanged > 0 && `${formatCount(unchanged)} unchanged`,
    missed > 0 && `${formatCount(missed)} missed`,
  ];
  return parts.filter(Boolean).join(', ');
}

/** A month of a series: what was taken, unchanged and missed on each day. */
export function Calendar({ days, today, chosen, onChoose }: Props) {
  const [month, setMonth] = useState<string | null>(null);
  const shown = partsOf(month ?? chosen);
  const byDay = new Map(days.map((day) => [day.day, day]));
  const go = (by: number) => setMonth(writtenDay(shifted({ ...shown, day: 1 }, { months: by })));
  const title = named(writtenDay({ ...shown, day: 1 }), { month: 'long', year: 'numeric' });
  return (
    <section aria-label="Calendar" className="rounded-[9px] border border-line bg-card p-3">
      <div className="mb-2 flex items-center justify-between">
        <IconButton label="The month before" onClick={() => go(-1)}>
          <ChevronLeft size={18} strokeWidth={1.75} />
        </IconButton>
        <h2 className="font-name text-base">{title}</h2>
        <IconButton label="The month after" onClick={() => go(1)}>
          <ChevronRight size={18} strokeWidth={1.75} />
        </IconButton>
      </div>
      <div aria-hidden className="mb-1 grid grid-cols-7 text-center text-[13px] text-soft">
        {week.map(({ day, name }) => (
          <span key={day}>{name}</span>
        ))}
      </div>
      <Radios
        label={`Days of ${title}`}
        value={chosen}
        className="grid grid-cols-7 gap-1"
        onChange={onChoose}
      >
        {weeksOf(shown)
          .flat()
          .map(writtenDay)
          .map((day) => (
            <DayCell
              key={day}
              day={day}
              of={byDay.get(day)}
              outside={partsOf(day).month !== shown.month}
              isToday={day === today}
              isChosen={day === chosen}
            />
          ))}
      </Radios>
      <p aria-hidden className="mt-2 flex flex-wrap gap-x-3 text-[13px]">
        <span className="font-bold text-petrol">taken</span>
        <span className="text-soft">= unchanged</span>
        <span className="font-bold text-brick">! missed</span>
      </p>
    </section>
  );
}

interface CellProps {
  day: string;
  of: SeriesDay | undefined;
  outside: boolean;
  isToday: boolean;
  isChosen: boolean;
}

function DayCell({ day, of, outside, isToday, isChosen }: CellProps) {
  const words = of ? told(of) : '';
  const long = named(day, { weekday: 'long', day: 'numeric', month: 'long' });
  return (
    <Radio
      value={day}
      label={words ? `${long}: ${words}` : `${long}: nothing`}
      title={words || undefined}
      className={classes(
        'flex h-[58px] flex-col items-center rounded-[6px] border text-[13px] leading-[15px]',
        chosenLook(isChosen),
        outside && 'border-dashed',
        !of && !isChosen && '!border-line',
      )}
    >
      <span className={classes('font-measure', isToday && 'underline')}>{partsOf(day).day}</span>
      {of && of.taken > 0 && <span className="font-bold text-petrol">{short(of.taken)}</span>}
      {of && of.unchanged > 0 && <span className="text-soft">= {short(of.unchanged)}</span>}
      {of && of.missed > 0 && <span className="font-bold text-brick">! {short(of.missed)}</span>}
    </Radio>
  );
}

const short = (n: number): string =>
  new Intl.NumberFormat(undefined, { notation: n < 10_000 ? 'standard' : 'compact' }).format(n);
