// Made when they are used: the locale of a browser may change while a page is open.
const counted = (n: number): string => new Intl.NumberFormat().format(n);

/** Bytes in KB, MB and GB of 1000, in the browser's locale. */
export function formatBytes(bytes: number): string {
  const digits = (value: number) =>
    new Intl.NumberFormat(undefined, { maximumSignificantDigits: 3 }).format(value);
  if (bytes < 1000) return `${counted(bytes)} bytes`;
  if (bytes < 1_000_000) return `${digits(bytes / 1000)} KB`;
  return bytes < 1_000_000_000
    ? `${digits(bytes / 1_000_000)} MB`
    : `${digits(bytes / 1_000_000_000)} GB`;
}

export const formatCount = counted;

/** A number with so many decimals. */
export const formatFixed = (value: number, digits: number): string =>
  new Intl.NumberFormat(undefined, {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  }).format(value);

export const formatTime = (iso: string): string =>
  new Intl.DateTimeFormat(undefined, { timeStyle: 'short' }).format(new Date(iso));

export const formatMoment = (iso: string): string =>
  new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'medium' }).format(
    new Date(iso),
  );

/** Today, Yesterday, or the date. */
export function formatDay(iso: string, now = new Date()): string {
  const day = new Date(iso);
  const midnight = (d: Date) => new Date(d.getFullYear(), d.getMonth(), d.getDate()).getTime();
  const days = Math.round((midnight(now) - midnight(day)) / 86_400_000);
  if (days === 0) return 'Today';
  if (days === 1) return 'Yesterday';
  const year = day.getFullYear() === now.getFullYear() ? {} : ({ year: 'numeric' } as const);
  return new Intl.DateTimeFormat(undefined, {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    ...year,
  }).format(day);
}

/** How long ago something was, in the largest unit that fits. */
export function ago(iso: string, now = new Date()): string {
  const relative = new Intl.RelativeTimeFormat(undefined, { numeric: 'auto' });
  const seconds = Math.round((new Date(iso).getTime() - now.getTime()) / 1000);
  if (seconds > -60) return relative.format(0, 'minute');
  if (seconds > -3600) return relative.format(Math.round(seconds / 60), 'minute');
  if (seconds > -86_400) return relative.format(Math.round(seconds / 3600), 'hour');
  return relative.format(Math.round(seconds / 86_400), 'day');
}
