import { nextTime, period, spansBetween, type Span, type Times } from './times';

/** Where a series stands, ms since 1970. */
export interface Stand {
  /** The next time. */
  due: number;
  /** The last one that was dealt with. */
  last: number | null;
}

/** What is to be done of a series at a moment. */
export interface Settled {
  /** The clock was set back behind what was taken already. */
  setBack: boolean;
  /** What can only be told any more. */
  missed: Span[];
  /** A time that is taken now. */
  take: number | null;
  due: number | null;
}

const SECOND = 1000;
/** A clock that is put right by less was not set back, ms. */
export const SLACK = 5 * SECOND;
const LATEST = 300 * SECOND;

/** How late something may be taken for its time, ms: half of the way to the next one, at most five minutes. */
export const lateness = (times: Times): number =>
  Math.min(LATEST, Math.max(3 * SECOND, period(times) / 2));

/**
 * What a series that stood so has to do now. However far the clock leaps, at most one time is taken:
 * the last, where it is not too late for that; the others are missed.
 * @param now ms since 1970
 */
export function settle(times: Times, { due, last }: Stand, now: number): Settled {
  if (last !== null && now < last - SLACK) {
    return { setBack: true, missed: [], take: null, due: nextTime(times, now) };
  }
  if (now < due) return { setBack: false, missed: [], take: null, due };
  const spans = spansBetween(times, due, now);
  const latest = Math.max(due, ...spans.map(({ until }) => until));
  const isTaken = spans.length > 0 && now - latest <= lateness(times);
  const missed = isTaken ? spansBetween(times, due, latest - 1) : spans;
  return { setBack: false, missed, take: isTaken ? latest : null, due: nextTime(times, now) };
}
