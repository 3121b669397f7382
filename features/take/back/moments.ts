import type { HeldMoment } from '../sources/contract';
import type { Film } from './backState';

/** How long ago a moment was over when the film was opened: “now”, “2.4 s ago”. */
export function agoOf({ until }: HeldMoment, { now }: Pick<Film, 'now'>): string {
  if (until === null) return 'now';
  return `${Math.max(0.1, (now - until) / 1000).toFixed(1)} s ago`;
}

/** When it began, by the clock, with tenths of a second. */
export const clockOf = ({ since }: HeldMoment): string =>
  new Date(since).toLocaleTimeString(undefined, {
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    fractionalSecondDigits: 1,
  });
