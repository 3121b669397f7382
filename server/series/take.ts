import sharp from 'sharp';
import type { OnlyChanged } from '@/core/contracts/series';
import { nameFrom } from '@/core/naming/pattern';
import { lateness } from '@/core/series/settle';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import { faultOf } from '../db/faultOf';
import { sql } from '../db/sql';
import { frameBytes } from '../frames/rows';
import { jobsOf } from '../jobs/run';
import { run } from '../pool/pool';
import { checkPagesAllowed } from '../pages/reachNow';
import { storeShot } from '../shots/store';
import { thenSaid } from '../take/then';
import { BUSY_BEFORE, PAGE, QUICK, settleTake } from './log';
import { takePicture, type Picture } from './pictures';
import { getDue, type Due } from './rows';
import { lookingSince } from './tick';

const TOO_LATE = 'Rezzik was ended in the middle of it.';
const ENDED = 'It was paused or ended before it was taken.';

/** The last picture that a series took; null where there is none any more. */
async function lastPicture({ seriesId }: Due): Promise<Buffer | null> {
  const [row] = await sql()<{ id: string; length: number }[]>`
    select f.id, octet_length(f.bytes) as length from series_times t
      join shots h on h.id = t.shot_id join frames f on f.id = h.frame_id
    where t.series_id = ${seriesId} and t.outcome = 'taken' order by t.at desc limit 1`;
  return row ? frameBytes(row.id, row.length) : null;
}

/** True where there is something new to see. */
async function isNew(
  due: Due,
  { bytes: after }: Picture,
  { least, ...watched }: OnlyChanged,
  signal: AbortSignal,
): Promise<boolean> {
  const before = await lastPicture(due);
  if (!before) return true;
  const { width, height } = await sharp(after, { limitInputPixels: false }).metadata();
  const asking = { pixels: 2 * width * height, signal };
  const share = await run('changed', { before, after, watched }, asking);
  return share > 0 && share * 100 >= least;
}

/** @returns what it is called, and the number of it in its series */
async function titleOf({ name, pattern, times, seriesId }: Due, { bytes, provenance }: Picture) {
  const [row] = await sql()<{ number: number }[]>`
    update series set number = number + 1 where id = ${seriesId} returning number`;
  const { width, height } = await sharp(bytes, { limitInputPixels: false }).metadata();
  const facts = {
    ...{ title: name, window: provenance.windowTitle ?? '', takenAt: provenance.takenAt },
    ...{ timeZone: times.zone, width, height, number: row?.number ?? 1 },
  };
  return nameFrom(pattern, facts).slice(0, limits.titleLength);
}

async function isStored(id: string): Promise<boolean> {
  const [row] = await sql()`select 1 from shots where id = ${id}`;
  return row !== undefined;
}

/** Nothing is taken any more of what was settled, ended or is too late: that is told. */
async function isOver({ id, shot, at, times, byHand, state }: Due): Promise<boolean> {
  // It was stored, and nobody could write that down any more.
  if (await isStored(shot)) await settleTake(id, 'taken');
  else if (!byHand && state !== 'running') await settleTake(id, 'missed', { why: ENDED });
  else if (!byHand && Date.now() - at > lateness(times))
    await settleTake(id, 'missed', { why: at < lookingSince() ? TOO_LATE : BUSY_BEFORE });
  else return false;
  return true;
}

/** Stores what was taken, where there is something new to see, and does what comes then. */
export async function settlePicture(
  due: Due,
  picture: Picture,
  signal: AbortSignal,
): Promise<void> {
  const { id, shot, byHand, onlyChanged } = due;
  if (onlyChanged && !byHand && !(await isNew(due, picture, onlyChanged, signal)))
    return settleTake(id, 'unchanged');
  signal.throwIfAborted();
  const { bytes } = picture;
  const provenance = { ...picture.provenance, series: due.name };
  const title = await titleOf(due, picture);
  await storeShot({
    ...{ id: shot, picture: bytes, provenance, title, titleMade: true, byItself: true },
  });
  const then = await thenSaid(due.then, { id: shot, leaves: { format: null, size: null } });
  const why = [...picture.said, ...then].filter(Boolean).join(' ') || null;
  await settleTake(id, 'taken', { why, bytes: bytes.length });
}

async function takeOne(due: Due, signal: AbortSignal): Promise<void> {
  const { what } = due;
  if (what.source === 'screen' || what.source === 'camera' || (await isOver(due))) return;
  if (what.source === 'web') await checkPagesAllowed();
  await settlePicture(due, await takePicture(what, signal), signal);
}

/** In words; what is a fault inside is written down for whoever looks. */
export function whyNot(error: unknown): string {
  const fault = error instanceof Fault ? error : faultOf(error);
  if (fault) return fault.message;
  console.error('A series could not be taken:', error);
  return 'Something went wrong inside Rezzik.';
}

async function work(id: string, signal: AbortSignal): Promise<void> {
  const due = await getDue(id);
  if (!due) return;
  try {
    await takeOne(due, signal);
  } catch (error) {
    if (signal.aborted) throw error;
    // A time that could not be had is told, not taken later: it would be another time.
    await settleTake(id, 'missed', { why: whyNot(error) });
  }
}

jobsOf(QUICK, work);
jobsOf(PAGE, work, { alone: true });
