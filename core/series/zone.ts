import { clockIn, type CivilTime } from '../naming/civilTime';
import { two, writtenDay, type Day } from '../values/day';

const DAY = 86_400_000;
const MINUTE = 60_000;

const utc = ({ year, month, day, hour, minute, second }: CivilTime): number =>
  Date.UTC(year, month - 1, day, hour, minute, second);

/** A day and a time as a field of a form has it: 2026-03-29T14:30. */
export function readMoment(written: string, { moment }: Zone): number | null {
  const [, year, month, day, hour, minute] =
    /^(\d{4})-(\d\d)-(\d\d)T(\d\d):(\d\d)/.exec(written)?.map(Number) ?? [];
  if (minute === undefined) return null;
  const at = { year: year ?? 0, month: month ?? 0, day: day ?? 0 };
  return moment(at, (hour ?? 0) * 60 + minute);
}

/** The same, written. @param moment ms since 1970 */
export function writtenMoment(moment: number, timeZone: string): string {
  const { hour, minute, ...day } = clockIn(timeZone)(moment);
  return `${writtenDay(day)}T${two(hour)}:${two(minute)}`;
}

/** Days and moments of a time zone. */
export interface Zone {
  /** The day on which a moment falls, ms since 1970. */
  dayOf: (moment: number) => Day;
  /**
   * The moment, ms since 1970, at which the clock shows so many minutes after midnight of a day;
   * of two the first; where the clock leaps over that time, so much later as it leaps.
   */
  moment: (day: Day, minutes: number) => number;
}

/** @param timeZone IANA name @throws RangeError for an unknown zone */
export function zoneOf(timeZone: string): Zone {
  const clock = clockIn(timeZone);
  const ahead = (moment: number) => utc(clock(moment)) - Math.floor(moment / 1000) * 1000;
  return {
    dayOf: (moment) => {
      const { year, month, day } = clock(moment);
      return { year, month, day };
    },
    moment: ({ year, month, day }, minutes) => {
      const shown = Date.UTC(year, month - 1, day) + minutes * MINUTE;
      // No zone changes its clock twice within two days.
      const [before, after] = [ahead(shown - DAY), ahead(shown + DAY)];
      const found = [shown - Math.max(before, after), shown - Math.min(before, after)].find(
        (moment) => moment + ahead(moment) === shown,
      );
      return found ?? shown - before;
    },
  };
}
