import type { Times } from './times';

const names = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
/** The week as it is read: from Monday on. */
export const week: readonly { day: number; name: string }[] = [1, 2, 3, 4, 5, 6, 0].map((day) => ({
  day,
  name: names[day] ?? '',
}));

const units = [
  { seconds: 3600, one: 'hour', many: 'hours' },
  { seconds: 60, one: 'minute', many: 'minutes' },
  { seconds: 1, one: 'second', many: 'seconds' },
] as const;

/** A length of time in its largest whole unit. @param seconds at least 1 */
export function unitOf(seconds: number): { count: number; seconds: number; word: string } {
  const unit = units.find((u) => seconds % u.seconds === 0) ?? units[2];
  const count = seconds / unit.seconds;
  return { count, seconds: unit.seconds, word: count === 1 ? unit.one : unit.many };
}

function daysInWords(days: readonly number[]): string {
  const chosen = week.filter(({ day }) => days.includes(day));
  if (chosen.length === 7) return '';
  const places = chosen.map(({ day }) => week.findIndex((d) => d.day === day));
  const [first, last] = [chosen[0]?.name ?? '', chosen.at(-1)?.name ?? ''];
  const isRow = chosen.length > 2 && (places.at(-1) ?? 0) - (places[0] ?? 0) === chosen.length - 1;
  return isRow ? `${first}–${last}` : chosen.map(({ name }) => name).join(', ');
}

/** When it is taken, as it is said: “Every 15 minutes, 08:00–17:00, Mon–Fri”. */
export function timesInWords({ when, days }: Pick<Times, 'when' | 'days'>): string {
  const parts: string[] = [];
  if ('every' in when) {
    const { count, word } = unitOf(when.every);
    parts.push(count === 1 ? `Every ${word}` : `Every ${count} ${word}`);
    if (when.between) parts.push(`${when.between.from}–${when.between.until}`);
  } else parts.push(`At ${[...when.at].sort().join(', ')}`);
  parts.push(daysInWords(days));
  return parts.filter(Boolean).join(', ');
}
