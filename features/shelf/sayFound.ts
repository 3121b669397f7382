import { clockOf } from '@/core/clip/clock';
import type { Found } from '@/core/contracts/search';

const words: Record<Found['places'][number], string> = {
  title: 'title',
  tag: 'tag',
  window: 'window',
  program: 'program',
  description: 'description',
  picture: 'picture',
};

/** Why a shot was found; empty where nothing was asked for in words. */
export const sayReason = ({ places, moment }: Found): string => {
  if (places.length === 0) return '';
  const when = moment === undefined ? '' : ` at ${clockOf(moment)}`;
  return `in the ${places.map((place) => words[place]).join(', ')}${when}`;
};

const DAY = 86_400_000;

/** How long a shot stays in the bin; null where it does not lie there or stays. */
export function daysLeft(
  binnedAt: string | null,
  binDays: number | null,
  now = Date.now(),
): string | null {
  if (binnedAt === null || binDays === null) return null;
  const days = Math.ceil((new Date(binnedAt).getTime() + binDays * DAY - now) / DAY);
  if (days <= 0) return 'deleted within the hour';
  return days === 1 ? '1 day left' : `${days} days left`;
}
