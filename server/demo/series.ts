import { randomUUID } from 'node:crypto';
import { FIRST_SERIES_PATTERN, firstStopAt, seriesWhatSchema } from '@/core/contracts/series';
import { nextTime, type Times } from '@/core/series/times';
import { zoneOf } from '@/core/series/zone';
import { writtenDay } from '@/core/values/day';
import { timeZone } from '../base/timeZone';
import { json, sql } from '../db/sql';
import { deskPicture } from '../series/pictures';
import { storeShot } from '../shots/store';

const DAY = 86_400_000;
const NAME = 'Sensors, morning and evening';

/** Times that were missed, counted from the first, and why. */
const missed = new Map([
  [3, 'Rezzik was not running.'],
  [4, 'Rezzik was not running.'],
  [9, 'The computer was asleep, or its clock was set forward.'],
]);

/** What became of one of its times. */
interface Row {
  id: string;
  seriesId: string;
  shotId: string;
  at: Date;
  until: Date;
  day: string;
  outcome: 'taken' | 'missed';
  why: string | null;
}

/** All times from the beginning until now. */
function timesUntil(times: Times, now: number): number[] {
  const found: number[] = [];
  let next = nextTime(times, Date.parse(times.begins));
  while (next !== null && next <= now) {
    found.push(next);
    next = nextTime(times, next);
  }
  return found;
}

/** A series of the sensors over a week, which goes on. */
export async function fillSeries(id: string, now: Date): Promise<void> {
  const [there] = await sql()`select 1 from series where id = ${id}`;
  if (there) return;
  const what = seriesWhatSchema.parse({ source: 'desk', kind: 'window', window: 'Sensors' });
  if (what.source !== 'desk') return;
  const times: Times = {
    ...{ zone: timeZone(), begins: new Date(now.getTime() - 7 * DAY).toISOString(), ends: null },
    ...{ days: [0, 1, 2, 3, 4, 5, 6], when: { at: ['08:00', '16:00'] } },
  };
  const past = timesUntil(times, now.getTime());
  let [bytes, number] = [0, 0];
  const rows: Row[] = [];
  const { dayOf } = zoneOf(times.zone);
  for (const [i, from] of past.entries()) {
    const day = writtenDay(dayOf(from));
    const [at, shot, why] = [new Date(from), randomUUID(), missed.get(i) ?? null];
    const outcome = why === null ? 'taken' : 'missed';
    rows.push({ id: randomUUID(), seriesId: id, shotId: shot, at, until: at, day, outcome, why });
    if (why !== null) continue;
    number += 1;
    const { bytes: picture, ...taken } = await deskPicture(what, at);
    const provenance = { ...taken.provenance, series: NAME };
    bytes += picture.length;
    const title = `${NAME} ${String(number).padStart(3, '0')}`;
    await storeShot({ id: shot, picture, provenance, title, titleMade: true, byItself: true });
  }
  await sql().begin(async (tx) => {
    await tx`insert into series (id, name, what, times, pattern, most_shots, most_megabytes,
        due_at, last_at, number, taken, missed, bytes)
      values (${id}, ${NAME}, ${json(what)}, ${json(times)}, ${FIRST_SERIES_PATTERN},
        ${firstStopAt.shots}, ${firstStopAt.megabytes},
        ${new Date(nextTime(times, now.getTime()) ?? now)}, ${rows.at(-1)?.at ?? null}, ${number},
        ${number}, ${rows.length - number}, ${bytes})`;
    for (const row of rows) await tx`insert into series_times ${tx({ ...row, round: 0 })}`;
  });
}
