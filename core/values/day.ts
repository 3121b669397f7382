/** A day of the calendar. */
export interface Day {
  year: number;
  /** 1–12. */
  month: number;
  day: number;
}

export type Month = Pick<Day, 'year' | 'month'>;

const utc = ({ year, month, day }: Day): Date => {
  const date = new Date(0);
  date.setUTCFullYear(year, month - 1, day);
  return date;
};

/** A day so many days, months and years away; what lies beyond a month's end goes on in the next. */
export function shifted(day: Day, by: { days?: number; months?: number; years?: number }): Day {
  const date = utc({
    year: day.year + (by.years ?? 0),
    month: day.month + (by.months ?? 0),
    day: day.day + (by.days ?? 0),
  });
  return { year: date.getUTCFullYear(), month: date.getUTCMonth() + 1, day: date.getUTCDate() };
}

export const isBefore = (a: Day, b: Day): boolean => utc(a) < utc(b);

/** 0 for Sunday … 6 for Saturday. */
export const weekday = (day: Day): number => utc(day).getUTCDay();

export const two = (n: number): string => String(n).padStart(2, '0');

/** As it is written for programs: 2026-11. */
export const writtenMonth = ({ year, month }: Month): string =>
  `${String(year).padStart(4, '0')}-${two(month)}`;
/** The same of a day: 2026-03-29. */
export const writtenDay = (day: Day): string => `${writtenMonth(day)}-${two(day.day)}`;

/** The weeks of a month, each from Monday on; the first and the last reach into the months beside it. */
export function weeksOf({ year, month }: Month): Day[][] {
  const first = { year, month, day: 1 };
  const before = (weekday(first) + 6) % 7;
  const length = shifted({ year, month: month + 1, day: 0 }, {}).day;
  return Array.from({ length: Math.ceil((before + length) / 7) }, (_, week) =>
    Array.from({ length: 7 }, (__, day) => shifted(first, { days: week * 7 + day - before })),
  );
}
