import { isIn, type Stretch } from '../values/stretch';
import {
  isSome,
  keptStretches,
  secondsOf,
  without,
  type Cuts,
  type Sped,
  type Speed,
} from './cuts';

/** How fast a picture is played. */
export const speedAt = ({ speeds = [] }: Cuts, picture: number): Speed =>
  speeds.find((one) => isIn(one, picture))?.speed ?? 1;

/** Plays a stretch so many times as fast, whatever parts of it were before; 1 is its own speed. */
export function withSpeed(cuts: Cuts, stretch: Stretch, speed: Speed): Cuts {
  const others = (cuts.speeds ?? []).flatMap((one) => without(one, stretch)).filter(isSome);
  const all = [...others, ...(speed === 1 ? [] : [{ ...stretch, speed }])];
  all.sort((a, b) => a.from - b.from);
  return { away: cuts.away, ...(all.length > 0 && { speeds: all }) };
}

/** What is kept, in order, and how fast each of it is played. @param count of the film's pictures */
export function playedStretches(cuts: Cuts, count: number): Sped[] {
  const { speeds = [] } = cuts;
  return keptStretches(cuts, count).flatMap((kept) => {
    const inside = speeds.flatMap(({ from, to }) => [from, to]).filter((at) => at > kept.from);
    const edges = [kept.from, ...inside.filter((at) => at < kept.to), kept.to];
    return edges
      .slice(1)
      .map((to, i) => ({ from: edges[i] ?? 0, to }))
      .filter(isSome)
      .map((stretch) => ({ ...stretch, speed: speedAt(cuts, stretch.from) }));
  });
}

/** Of what is played faster each so many-th picture is left: as many a second as before. */
export const everyOf = (speed: number): number => Math.max(1, Math.floor(speed));

/** How long what is kept lasts, seconds. */
export const keptSeconds = (cuts: Cuts, times: readonly number[]): number =>
  playedStretches(cuts, times.length)
    .map(({ speed, ...stretch }) => ({ ...secondsOf(stretch, times), speed }))
    .reduce((sum, { from, to, speed }) => sum + (to - from) / speed, 0);

/** A picture of what is kept, whole thousandths of a second. */
export interface KeptPicture {
  /** Its number in the film. */
  picture: number;
  at: number;
  lasts: number;
}

/** Every picture that is kept, when it comes in what is kept, and for how long: never for no time. */
export function keptPictures(cuts: Cuts, times: readonly number[]): KeptPicture[] {
  let before = 0;
  const exact = playedStretches(cuts, times.length).flatMap(({ speed, ...stretch }) => {
    const { from, to } = secondsOf(stretch, times);
    const begin = before;
    before += (to - from) / speed;
    return times
      .slice(stretch.from, stretch.to)
      .map((at, i) => ({ picture: stretch.from + i, at: begin + (at - from) / speed }))
      .filter((_, i) => i % everyOf(speed) === 0);
  });
  let next = 0;
  const begun = exact.map(({ picture, at }) => {
    const ms = Math.max(next, Math.round(1000 * at));
    next = ms + 1;
    return { picture, at: ms };
  });
  const over = Math.max(next, Math.round(1000 * before));
  return begun.map((one, i) => ({ ...one, lasts: (begun[i + 1]?.at ?? over) - one.at }));
}
