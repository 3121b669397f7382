import type { Series } from '@/core/contracts/series';
import { kindLabels } from '@/core/contracts/way';
import { formatBytes, formatCount } from '../ui/format';
import { sources } from '../take/sources/list';

/** A moment as the clock of a time zone shows it. */
export const momentIn = (moment: number | string, timeZone: string): string =>
  new Intl.DateTimeFormat(undefined, {
    ...{ weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
    timeZone,
  }).format(new Date(moment));

/** The time of a moment, to the second. */
export const timeIn = (moment: string, timeZone: string): string =>
  new Intl.DateTimeFormat(undefined, { timeStyle: 'medium', timeZone }).format(new Date(moment));

export function whatInWords({ what }: Series): string {
  const from = sources[what.source].label;
  if (what.source === 'web') return `${from}: ${what.page.address}`;
  if (what.kind !== 'window') return `${kindLabels[what.kind]}, ${from}`;
  return `${what.window ? `Window “${what.window}”` : 'Window in use'}, ${from}`;
}

/** How it stands: when it takes next, or why it does not. */
export function standInWords({ state, next, why, times }: Series): string {
  if (state === 'paused') return 'Paused';
  if (state === 'ended') return `Ended. ${why ?? ''}`.trim();
  return next === null ? 'No time is left' : `Next: ${momentIn(next, times.zone)}`;
}

/** What came of it so far. */
export function countsInWords({ taken, unchanged, missed, bytes }: Series): string {
  const parts = [`${formatCount(taken)} taken, ${formatBytes(bytes)}`];
  if (unchanged > 0) parts.push(`${formatCount(unchanged)} unchanged`);
  if (missed > 0) parts.push(`${formatCount(missed)} missed`);
  return parts.join(' · ');
}
