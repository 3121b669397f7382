import { shifted, weekday, writtenDay, type Day } from '../values/day';
import { zoneOf, type Zone } from './zone';

/** Again and again. */
export interface Every {
  /** Seconds. */
  every: number;
  /** Counted from this time of each day on, until that one, as HH:mm; null: from the beginning on. */
  between: { from: string; until: string } | null;
}

/** At times of the day, as HH:mm. */
export interface AtTimes {
  at: readonly string[];
}

/** When something is taken. */
export interface Times {
  /** IANA name. */
  zone: string;
  /** Nothing before, RFC 3339. */
  begins: string;
  /** Nothing after, RFC 3339. */
  ends: string | null;
  /** 0 for Sunday … 6 for Saturday. */
  days: readonly number[];
  when: Every | AtTimes;
}

/** Times of one day: the first and the last, ms since 1970, and how many. */
export interface Span {
  /** As 2026-03-29. */
  day: string;
  from: number;
  until: number;
  count: number;
}

interface Run {
  from: number;
  step: number;
  count: number;
}

/** Days looked at for the next time: there are chosen ones in any week. */
const SOON = 10;

const minutesOf = (time: string): number => {
  const [hour = 0, minute = 0] = time.split(':').map(Number);
  return hour * 60 + minute;
};

/** How long from one time to the next, at least, ms. */
export function period({ when }: Times): number {
  if ('every' in when) return when.every * 1000;
  const at = when.at.map(minutesOf).sort((a, b) => a - b);
  const gaps = at.map((minutes, i) => (at[i + 1] ?? (at[0] ?? 0) + 1440) - minutes);
  return Math.min(...gaps) * 60_000;
}

/** Those of a run that are at or after `from` and at or before `until`. */
function clipped({ from, step, count }: Run, after: number, until: number): Run | null {
  const first = Math.max(0, Math.ceil((after - from) / step));
  const last = Math.min(count - 1, Math.floor((until - from) / step));
  return last < first ? null : { from: from + first * step, step, count: last - first + 1 };
}

/** What falls on a day, in its order. A night that goes on after midnight belongs to its evening. */
function runsOf({ when, begins, days }: Times, zone: Zone, day: Day): Run[] {
  if (!days.includes(weekday(day))) return [];
  if ('at' in when) {
    const moments = when.at.map((time) => zone.moment(day, minutesOf(time)));
    return [...new Set(moments)].sort((a, b) => a - b).map((from) => ({ from, step: 1, count: 1 }));
  }
  const step = when.every * 1000;
  if (!when.between) {
    // One row from the beginning on, of which this day has its part.
    const whole = { from: Date.parse(begins), step, count: Infinity };
    const part = clipped(whole, zone.moment(day, 0), zone.moment(shifted(day, { days: 1 }), 0) - 1);
    return part ? [part] : [];
  }
  const [from, until] = [minutesOf(when.between.from), minutesOf(when.between.until)];
  const first = zone.moment(day, from);
  // A whole day ends before the next one begins.
  const last =
    zone.moment(until <= from ? shifted(day, { days: 1 }) : day, until) - (until === from ? 1 : 0);
  return [{ from: first, step, count: Math.floor((last - first) / step) + 1 }];
}

/** The runs of some days that lie between two moments, both included. */
function* runsBetween(
  times: Times,
  from: number,
  until: number,
): Generator<{ day: Day; run: Run }> {
  const zone = zoneOf(times.zone);
  const first = Math.max(from, Date.parse(times.begins));
  const last = Math.min(until, times.ends === null ? Infinity : Date.parse(times.ends));
  if (last < first) return;
  const end = writtenDay(zone.dayOf(last));
  // The night before may go on into the first day.
  for (
    let day = shifted(zone.dayOf(first), { days: -1 });
    writtenDay(day) <= end;
    day = shifted(day, { days: 1 })
  ) {
    for (const whole of runsOf(times, zone, day)) {
      const run = clipped(whole, first, last);
      if (run) yield { day, run };
    }
  }
}

/** The next time after a moment, ms since 1970; null where there is none any more. */
export function nextTime(times: Times, after: number): number | null {
  const from = Math.max(after + 1, Date.parse(times.begins));
  for (const { run } of runsBetween(times, from, from + SOON * 86_400_000)) return run.from;
  return null;
}

/** Everything between two moments, both included, a span for each day. */
export function spansBetween(times: Times, from: number, until: number): Span[] {
  const spans: Span[] = [];
  for (const { day: on, run } of runsBetween(times, from, until)) {
    const day = writtenDay(on);
    const last = run.from + (run.count - 1) * run.step;
    const before = spans.at(-1);
    if (before?.day === day) {
      before.until = last;
      before.count += run.count;
    } else spans.push({ day, from: run.from, until: last, count: run.count });
  }
  return spans;
}
