import { isIn, type Stretch } from '../values/stretch';

/** What of a film is kept: everything of it that no cut takes away. */
export interface Cuts {
  /** Taken away, in order and apart from each other. */
  away: readonly Stretch[];
  /** Played faster or slower, in order and apart from each other. */
  speeds?: readonly Sped[] | undefined;
}

/** So many times as fast. */
export const SPEEDS = [0.25, 0.5, 1, 2, 4, 8] as const;
export type Speed = (typeof SPEEDS)[number];

export interface Sped extends Stretch {
  speed: Speed;
}

export const UNCUT: Cuts = { away: [] };

export const isSome = ({ from, to }: Stretch): boolean => from < to;

/** What is left of a stretch on both sides of another; either may be nothing. */
export const without = <S extends Stretch>(one: S, { from, to }: Stretch): [S, S] => [
  { ...one, to: Math.min(one.to, from) },
  { ...one, from: Math.max(one.from, to) },
];

/** In order, those that touch made one. @param count of the film's pictures */
export function tidied(stretches: readonly Stretch[], count: number): Stretch[] {
  const within = stretches
    .map(({ from, to }) => ({ from: Math.max(0, from), to: Math.min(count, to) }))
    .filter(isSome)
    .sort((a, b) => a.from - b.from);
  const apart: Stretch[] = [];
  for (const next of within) {
    const last = apart.at(-1);
    if (last && next.from <= last.to) last.to = Math.max(last.to, next.to);
    else apart.push({ ...next });
  }
  return apart;
}

/**
 * What stays of a film, in order.
 * @param count how many pictures it has
 */
export function keptStretches({ away }: Cuts, count: number): Stretch[] {
  const gone = tidied(away, count);
  const edges = [0, ...gone.flatMap(({ from, to }) => [from, to]), count];
  return Array.from({ length: edges.length / 2 }, (_, i) => ({
    from: edges[2 * i] ?? 0,
    to: edges[2 * i + 1] ?? 0,
  })).filter(isSome);
}

/** Takes a stretch away; what would leave nothing changes nothing. */
export function cutAway(cuts: Cuts, stretch: Stretch, count: number): Cuts {
  const away = tidied([...cuts.away, stretch], count);
  return keptStretches({ away }, count).length > 0 ? { ...cuts, away } : cuts;
}

/** Brings back what was taken away of a stretch. */
export function bringBack(cuts: Cuts, stretch: Stretch, count: number): Cuts {
  const left = tidied(cuts.away, count).flatMap((one) => without(one, stretch));
  return { ...cuts, away: tidied(left, count) };
}

/** The film begins with this picture: what is before it goes, and what a person took from its start comes back. */
export const beginAt = (cuts: Cuts, picture: number, count: number): Cuts =>
  withEdge(cuts, { from: 0, to: picture }, firstKept(cuts, count), picture, count);

/** The film ends with this picture. */
export function endAt(cuts: Cuts, picture: number, count: number): Cuts {
  const after = lastKept(cuts, count) + 1;
  return withEdge(cuts, { from: picture + 1, to: count }, picture + 1, after, count);
}

/** Moves an edge of what is kept: between where it was and where it is now, all is kept or gone. */
function withEdge(cuts: Cuts, gone: Stretch, from: number, to: number, count: number): Cuts {
  const back = from < to ? cuts : bringBack(cuts, { from: to, to: from }, count);
  return cutAway(back, gone, count);
}

export const firstKept = (cuts: Cuts, count: number): number =>
  keptStretches(cuts, count)[0]?.from ?? 0;

export const lastKept = (cuts: Cuts, count: number): number =>
  (keptStretches(cuts, count).at(-1)?.to ?? count) - 1;

/**
 * When each picture of a film begins to be seen, seconds from its start, and when the last is over.
 * @param times when each comes, seconds, ascending
 */
export function filmEnds(times: readonly number[]): number {
  const [last = 0, before = 0] = [times.at(-1), times.at(-2)];
  // The last is seen for as long as the one before it.
  return last + (times.length > 1 ? last - before : 0);
}

/** When a stretch begins and ends, seconds; nothing lasts longer than the film. */
export function secondsOf({ from, to }: Stretch, times: readonly number[]): Stretch {
  const end = filmEnds(times);
  return { from: times[from] ?? end, to: times[to] ?? end };
}

/**
 * Which picture is seen at a moment.
 * @param at seconds from the start
 * @returns its number; the first before the start, the last after the end
 */
export function pictureAt(times: readonly number[], at: number): number {
  let [low, high] = [0, times.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((times[middle] ?? Infinity) <= at + 1e-6) low = middle;
    else high = middle - 1;
  }
  return Math.max(0, low);
}

/** The picture that is seen next, or before, of those that are kept. */
export function stepFrom(cuts: Cuts, picture: number, by: 1 | -1, count: number): number {
  const kept = keptStretches(cuts, count);
  const next = picture + by;
  if (kept.some((stretch) => isIn(stretch, next))) return next;
  if (by > 0) return kept.find(({ from }) => from > picture)?.from ?? lastKept(cuts, count);
  return (kept.findLast(({ to }) => to <= picture)?.to ?? firstKept(cuts, count) + 1) - 1;
}
