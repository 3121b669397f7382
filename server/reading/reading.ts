import type { ShotWords } from '@/core/contracts/search';
import { withFinish } from '@/core/finish/finish';
import { json, sql } from '../db/sql';
import { env } from '../base/env';
import { notFound } from '../base/fault';
import { jobsOf } from '../jobs/run';
import { paint } from '../pictures/painted';
import { indexShot } from '../indexing/indexing';
import { getSettings } from '../settings/settings';
import { getPaintable, type Paintable } from '../shots/rows';
import { enlarged } from './enlarged';
import { isBusy } from '../words/quiet';
import { readLater } from './later';
import { recognise } from './recognise';
import { packWords, unpackParagraphs } from '../words/rows';
import { WORDS, wantWords } from '../words/wanted';

/** A shot that could not be read so often is left alone until a person asks again. */
const MOST_TRIES = 4;

/** The words of a shot as it leaves, without what lies around it. */
async function wordsIn(shot: Paintable, language: string, signal: AbortSignal) {
  const finish = withFinish(shot.document.finish, { surround: undefined });
  const picture = await enlarged(await paint({ ...shot, document: { ...shot.document, finish } }));
  return recognise(picture, language, signal);
}

async function read(id: string, signal: AbortSignal): Promise<void> {
  const shot = await getPaintable(id);
  const { revision } = shot;
  const { wordsLanguage: language } = await getSettings();
  const { lines, boxes } = packWords(await wordsIn(shot, language, signal));
  if (signal.aborted) return;
  await sql().begin(async (tx) => {
    // Held, so that a change either came before, and it is read again, or waits and forgets it.
    const [same] = await tx`
      select 1 from shots where id = ${id} and revision = ${revision} for no key update`;
    if (!same) return;
    await tx`update words set revision = ${revision}, lines = ${lines}, boxes = ${boxes},
      later = null where shot_id = ${id}`;
    await indexShot(tx, id);
  });
  if (!shot.clip) return;
  const later = await readLater(shot, (one) => wordsIn(one, language, signal), lines, signal);
  await sql().begin(async (tx) => {
    await tx`select 1 from shots where id = ${id} for no key update`;
    // Also where it was changed meanwhile in nothing that can be read.
    await tx`update words w set later = ${json(later)} from shots s
      where w.shot_id = ${id} and s.id = w.shot_id and w.revision = s.revision`;
    await indexShot(tx, id);
  });
}

async function mayRead(): Promise<boolean> {
  return env().reading && !isBusy() && (await getSettings()).readWords;
}

jobsOf(WORDS, read, { alone: true, may: mayRead, newestFirst: true, mostTries: MOST_TRIES });

/** Shots from before words were read wait for it as well; those that lie in the bin do not. */
export async function wantMissing(): Promise<void> {
  await sql().begin(async (tx) => {
    await tx`insert into words (shot_id) select id from shots s
      where binned_at is null and not exists (select 1 from words w where w.shot_id = s.id)`;
    await tx`insert into jobs (id, kind, due_at) select s.id, ${WORDS}, least(s.taken_at, now())
      from shots s join words w on w.shot_id = s.id
      where w.revision is null and not exists (select 1 from jobs j where j.id = s.id)`;
  });
}

/** A person asks for a shot whose reading failed to be read again. */
export async function readAgain(id: string): Promise<void> {
  await sql().begin(async (tx) => {
    const [shot] = await tx`select 1 from shots where id = ${id}`;
    if (!shot) throw notFound('shot');
    await wantWords(tx, id, 'taken');
  });
}

interface WordsRow {
  at: number;
  revision: number | null;
  lines: string | null;
  boxes: Buffer | null;
  later: ShotWords['later'] | null;
  state: string | null;
  problem: string | null;
  leased: boolean;
}

/** What was read of a shot, and where its reading stands. @throws Fault 404 */
export async function wordsOf(id: string): Promise<ShotWords> {
  const [row] = await sql()<WordsRow[]>`
    select s.revision as at, w.revision, w.lines, w.boxes, w.later, j.state, j.problem,
      coalesce(j.leased_until > now(), false) as leased
    from shots s left join words w on w.shot_id = s.id
      left join jobs j on j.id = s.id and j.kind = ${WORDS} where s.id = ${id}`;
  if (!row) throw notFound('shot');
  let line = -1;
  const words = unpackParagraphs(row.lines, row.boxes).flatMap((lines, paragraph) =>
    lines.flatMap((those) => {
      line += 1;
      return those.map((word) => ({ ...word, line, paragraph }));
    }),
  );
  const { revision, problem } = row;
  const later = row.later ?? undefined;
  if (revision === row.at) return { state: 'read', problem: null, revision, words, later };
  const on = env().reading && (await getSettings()).readWords;
  const state =
    row.state === 'stopped' ? 'stopped' : !on ? 'off' : row.leased ? 'reading' : 'waiting';
  return { state, problem, revision, words, later };
}

/** How many shots are read, how many wait, and which could not be. */
export async function progress(): Promise<{ read: number; waiting: number; stopped: number }> {
  const [row] = await sql()<{ read: number; waiting: number; stopped: number }[]>`
    select count(*) filter (where state = 'done')::int as read,
      count(*) filter (where state = 'waiting')::int as waiting,
      count(*) filter (where state = 'stopped')::int as stopped from jobs where kind = ${WORDS}`;
  return row ?? { read: 0, waiting: 0, stopped: 0 };
}

/** All whose reading failed are tried again. */
export async function retryStopped(): Promise<void> {
  await sql()`update jobs set state = 'waiting', tries = 0, problem = null, due_at = now()
    where kind = ${WORDS} and state = 'stopped'`;
}
