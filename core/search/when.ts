import { isBefore, shifted, weekday, type Day } from '../values/day';

/** The day of a moment where the program runs. */
export const dayOf = (moment: Date): Day => ({
  year: moment.getFullYear(),
  month: moment.getMonth() + 1,
  day: moment.getDate(),
});

/** Days from the first on, up to the one before `end`. */
export interface Days {
  from: Day;
  end: Day;
}

const months = [
  ['january', 'jan'],
  ['february', 'feb'],
  ['march', 'mar'],
  ['april', 'apr'],
  ['may'],
  ['june', 'jun'],
  ['july', 'jul'],
  ['august', 'aug'],
  ['september', 'sep', 'sept'],
  ['october', 'oct'],
  ['november', 'nov'],
  ['december', 'dec'],
];
const weekdays = ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'];

const oneDay = (from: Day): Days => ({ from, end: shifted(from, { days: 1 }) });
const daysFrom = (from: Day, days: number): Days => ({ from, end: shifted(from, { days }) });
const oneMonth = (year: number, month: number): Days => {
  const from = { year, month, day: 1 };
  return { from, end: shifted(from, { months: 1 }) };
};
const oneYear = (year: number): Days => ({
  from: { year, month: 1, day: 1 },
  end: { year: year + 1, month: 1, day: 1 },
});

/** A day of the calendar that exists. */
function exact(year: number, month: number, day: number): Days | null {
  const given = { year, month, day };
  const real = shifted(given, {});
  return real.month === month && real.day === day ? oneDay(given) : null;
}

const monthOf = (word: string): number => months.findIndex((names) => names.includes(word)) + 1;

/** Monday of the week of a day. */
const weekOf = (day: Day): Day => shifted(day, { days: -((weekday(day) + 6) % 7) });

function inWords(words: string, today: Day): Days | null {
  switch (words) {
    case 'today':
      return oneDay(today);
    case 'yesterday':
      return oneDay(shifted(today, { days: -1 }));
    case 'this week':
      return daysFrom(weekOf(today), 7);
    case 'last week':
      return daysFrom(shifted(weekOf(today), { days: -7 }), 7);
    case 'this month':
      return oneMonth(today.year, today.month);
    case 'last month': {
      const { year, month } = shifted({ ...today, day: 1 }, { months: -1 });
      return oneMonth(year, month);
    }
    case 'this year':
      return oneYear(today.year);
    case 'last year':
      return oneYear(today.year - 1);
    default:
      return null;
  }
}

const YEAR = '(\\d{4})';
const NAME = '([a-z]+)';

const forms: readonly [RegExp, (found: readonly string[], today: Day) => Days | null][] = [
  [/^(\d{4})-(\d\d?)-(\d\d?)$/, ([y, m, d]) => exact(Number(y), Number(m), Number(d))],
  [/^(\d\d?)[./](\d\d?)[./](\d{4})$/, ([d, m, y]) => exact(Number(y), Number(m), Number(d))],
  [
    /^(\d{4})-(\d\d?)$/,
    ([y, m]) => (Number(m) >= 1 && Number(m) <= 12 ? oneMonth(Number(y), Number(m)) : null),
  ],
  [/^(\d{4})$/, ([y]) => oneYear(Number(y))],
  [/^(\d{1,4}) days? ago$/, ([n], today) => oneDay(shifted(today, { days: -Number(n) }))],
  [
    /^last (\d{1,4}) days$/,
    ([n], today) => daysFrom(shifted(today, { days: 1 - Number(n) }), Number(n)),
  ],
  [
    new RegExp(`^${NAME}(?: ${YEAR})?$`),
    ([name = '', year], today) => {
      const named = weekdays.indexOf(name);
      if (named >= 0 && !year) {
        return oneDay(shifted(today, { days: -((weekday(today) - named + 7) % 7) }));
      }
      const month = monthOf(name);
      if (!month) return null;
      // Without a year the last one that has begun.
      return oneMonth(year ? Number(year) : today.year - (month > today.month ? 1 : 0), month);
    },
  ],
  [
    new RegExp(`^(\\d\\d?)\\.? ${NAME}(?: ${YEAR})?$`),
    ([day, name = '', year], today) => dayOfMonth(Number(day), monthOf(name), year, today),
  ],
  [
    new RegExp(`^${NAME} (\\d\\d?)(?:,? ${YEAR})?$`),
    ([name = '', day, year], today) => dayOfMonth(Number(day), monthOf(name), year, today),
  ],
];

function dayOfMonth(day: number, month: number, year: string | undefined, today: Day): Days | null {
  if (!month) return null;
  if (year) return exact(Number(year), month, day);
  const later = isBefore(today, { year: today.year, month, day });
  return exact(today.year - (later ? 1 : 0), month, day);
}

/**
 * Days from words: today, last week, March, 3 March 2026, Monday, 2026-03-03, 4 days ago …
 * @param today what day it is where the person is; without a year the last such day is meant
 * @returns null for what is no date
 */
export function daysFromWords(words: string, today: Day): Days | null {
  const plain = words
    .toLowerCase()
    .replace(/[-_ ]+/g, (gap) => (/^-$/.test(gap) ? '-' : ' '))
    .trim();
  // Hyphens part words, too: last-week; those between digits belong to the date.
  const parted = plain.replace(/(?<!\d)-|-(?!\d)/g, ' ');
  const said = inWords(parted, today);
  if (said) return said;
  for (const [form, read] of forms) {
    const found = form.exec(parted);
    if (found) return read(found.slice(1), today);
  }
  return null;
}
