import type { Stretch } from '../values/stretch';
import { keptStretches, type Cuts } from './cuts';
import { keptSeconds } from './played';

/** So many places of a clip are looked at. */
const PLACES = 5;
/** So long each, seconds. */
const LASTS = 0.7;

/** Of a clip, what is enough to tell how large all of it becomes. */
export interface Sample {
  /** Short stretches all over it. */
  stretches: Cuts;
  /** Their first pictures alone. */
  pictures: Cuts;
}

/** Keeps of what is kept these stretches only, in order and apart. @param count of its pictures */
function only(cuts: Cuts, stretches: readonly Stretch[], count: number): Cuts {
  const edges = [0, ...stretches.flatMap(({ from, to }) => [from, to]), count];
  const away = Array.from({ length: edges.length / 2 }, (_, i) => ({
    from: edges[2 * i] ?? 0,
    to: edges[2 * i + 1] ?? 0,
  }));
  return { ...cuts, away: away.filter(({ from, to }) => from < to) };
}

/**
 * Short stretches of what is kept of a film, evenly over it, none of them across a cut.
 * @returns null where it is so short that all of it is looked at
 */
export function sampleOf(cuts: Cuts, times: readonly number[]): Sample | null {
  const seconds = keptSeconds(cuts, times);
  if (seconds < 2 * PLACES * LASTS) return null;
  const kept = keptStretches(cuts, times.length).flatMap(({ from, to }) =>
    Array.from({ length: to - from }, (_, i) => ({ picture: from + i, end: to })),
  );
  const lasts = Math.max(2, Math.round((LASTS * kept.length) / seconds));
  const stretches = Array.from({ length: PLACES }, (_, i) => {
    const { picture = 0, end = 0 } = kept[Math.floor(((i + 0.5) * kept.length) / PLACES)] ?? {};
    return { from: picture, to: Math.min(end, picture + lasts) };
  });
  const firsts = stretches.map(({ from }) => ({ from, to: from + 1 }));
  return {
    stretches: only(cuts, stretches, times.length),
    pictures: only(cuts, firsts, times.length),
  };
}

/**
 * How large all of a film becomes: one picture that stands for itself, and for every second what
 * its changes took in the sample.
 * @param bytes of the sample's stretches, and of its pictures
 */
export function sizeBySample(
  { stretches, pictures }: Sample,
  bytes: { stretches: number; pictures: number },
  cuts: Cuts,
  times: readonly number[],
): number {
  const first = bytes.pictures / PLACES;
  const more = keptSeconds(stretches, times) - keptSeconds(pictures, times);
  const aSecond = Math.max(0, bytes.stretches - bytes.pictures) / Math.max(0.01, more);
  return Math.round(first + aSecond * keptSeconds(cuts, times));
}
