/** A moment as a clock on the wall shows it. */
export interface CivilTime {
  year: number;
  month: number;
  day: number;
  hour: number;
  minute: number;
  second: number;
}

/**
 * A clock in a time zone (IANA name), daylight saving included: what it shows at a moment, given in
 * ms since 1970.
 * @throws RangeError for an unknown zone; the clock throws it for a moment that is none
 */
export function clockIn(timeZone: string): (moment: number) => CivilTime {
  const format = new Intl.DateTimeFormat('en-u-ca-iso8601', {
    timeZone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
  });
  return (moment) => {
    const parts = format.formatToParts(moment);
    const read = (type: string) => Number(parts.find((p) => p.type === type)?.value);
    return {
      year: read('year'),
      month: read('month'),
      day: read('day'),
      hour: read('hour'),
      minute: read('minute'),
      second: read('second'),
    };
  };
}

/**
 * The wall-clock time of an RFC 3339 moment in a time zone (IANA name), daylight saving included.
 * @throws RangeError for a text that is no moment or an unknown zone
 */
export const civilTime = (moment: string, timeZone: string): CivilTime =>
  clockIn(timeZone)(Date.parse(moment));

const two = (n: number): string => String(n).padStart(2, '0');

/** Writes a time by a form of yyyy, yy, MM, dd, HH, mm and ss; other characters stay. */
export function formatCivil(time: CivilTime, form: string): string {
  return form.replace(/yyyy|yy|MM|dd|HH|mm|ss/g, (token) => {
    switch (token) {
      case 'yyyy':
        return String(time.year).padStart(4, '0');
      case 'yy':
        return two(time.year % 100);
      case 'MM':
        return two(time.month);
      case 'dd':
        return two(time.day);
      case 'HH':
        return two(time.hour);
      case 'mm':
        return two(time.minute);
      default:
        return two(time.second);
    }
  });
}
