import { CalendarDays, ChevronLeft, ChevronRight } from 'lucide-react';
import { useState, type KeyboardEvent } from 'react';
import { api } from '../../api/client';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Pop } from '../../ui/Pop';
import { classes } from '../../ui/classes';
import {
  shifted,
  weeksOf,
  writtenDay,
  writtenMonth,
  type Day,
  type Month,
} from '@/core/values/day';
import { useAnswer } from '../../api/useAnswer';
import { Problem } from '../../ui/Problem';

const nameOf = ({ year, month }: Month): string =>
  new Intl.DateTimeFormat(undefined, { month: 'long', year: 'numeric' }).format(
    new Date(year, month - 1, 1),
  );

/** Jumps to a day; those with shots say how many. */
export function Calendar({ onDay }: { onDay: (day: string) => void }) {
  const [open, setOpen] = useState(false);
  const button = (
    <Button look="quiet" icon={<CalendarDays size={16} strokeWidth={1.75} />}>
      Calendar
    </Button>
  );
  return (
    <Pop trigger={button} label="Calendar" open={open} onOpen={setOpen} className="w-[300px]">
      <MonthView
        onDay={(day) => {
          setOpen(false);
          onDay(day);
        }}
      />
    </Pop>
  );
}

function isToday({ year, month, day }: Day): boolean {
  const now = new Date();
  return now.getFullYear() === year && now.getMonth() + 1 === month && now.getDate() === day;
}

const WEEKDAYS = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'];
const steps: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 };

function MonthView({ onDay }: { onDay: (day: string) => void }) {
  const [month, setMonth] = useState<Month>(() => {
    const now = new Date();
    return { year: now.getFullYear(), month: now.getMonth() + 1 };
  });
  const { answer, problem } = useAnswer(() => api.daysOf(writtenMonth(month)), writtenMonth(month));
  const days = answer ?? [];
  const countOf = (day: Day): number => days.find((one) => one.day === writtenDay(day))?.shots ?? 0;
  const key = (event: KeyboardEvent<HTMLButtonElement>) => {
    const by = steps[event.key];
    if (!by) return;
    event.preventDefault();
    const to = Number(event.currentTarget.dataset.day) + by;
    event.currentTarget.closest('table')?.querySelector<HTMLElement>(`[data-day="${to}"]`)?.focus();
  };
  return (
    <>
      {problem && <Problem>{problem}</Problem>}
      <div className="mb-2 flex items-center">
        <IconButton
          label="Month before"
          onClick={() => setMonth((m) => shifted({ ...m, day: 1 }, { months: -1 }))}
        >
          <ChevronLeft size={18} strokeWidth={1.75} />
        </IconButton>
        <p role="status" data-month className="grow text-center font-name">
          {nameOf(month)}
        </p>
        <IconButton
          label="Month after"
          onClick={() => setMonth((m) => shifted({ ...m, day: 1 }, { months: 1 }))}
        >
          <ChevronRight size={18} strokeWidth={1.75} />
        </IconButton>
      </div>
      <table className="w-full text-center">
        <thead>
          <tr className="text-[12px] text-soft">
            {WEEKDAYS.map((name) => (
              <th key={name} className="font-normal">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {weeksOf(month).map((week, i) => (
            <tr key={i}>
              {week.map((day, j) => (
                <td key={j} className="p-0.5">
                  {day.month === month.month && (
                    <button
                      type="button"
                      data-day={day.day}
                      autoFocus={isToday(day)}
                      onKeyDown={key}
                      onClick={() => onDay(writtenDay(day))}
                      className={classes(
                        'flex h-9 w-full flex-col items-center justify-center rounded-[6px] border text-[13px] leading-none',
                        countOf(day)
                          ? 'border-edge bg-tint font-bold hover:border-petrol'
                          : 'border-transparent text-soft hover:bg-tint',
                      )}
                    >
                      {day.day}
                      <span className="sr-only"> {nameOf(month)}, </span>
                      <span
                        className={classes(
                          'mt-0.5 font-measure text-[10px] font-normal text-petrol',
                          countOf(day) === 0 && 'sr-only',
                        )}
                      >
                        {countOf(day)}
                      </span>
                      <span className="sr-only"> {countOf(day) === 1 ? 'shot' : 'shots'}</span>
                    </button>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
