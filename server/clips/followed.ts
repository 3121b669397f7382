import { z } from 'zod';
import { followedSchema, shownSchema } from '@/core/contracts/clip';
import { followSteps, type Followed } from '@/core/clip/followed';
import type { Follow } from '@/core/document/viewSchema';
import type { Size } from '@/core/geometry/size';
import { limits } from '@/core/values/limits';
import { Fault } from '../base/fault';
import { json, sql } from '../db/sql';
import { getRecording } from './recordings';

/** Thirty a second for ten minutes, and some more. */
const MOST = 20_000;

const within = (value: number): number => Math.min(limits.side, Math.max(-limits.side, value));

/** Where the window that is recorded lies while it goes on; more than can be shown is left. @throws Fault 404, 409 */
export async function addFollowed(shot: string, followed: readonly Followed[]): Promise<void> {
  const kept = await sql()`update recordings set followed = followed || ${json(followed)}
    where shot_id = ${shot} and state = 'going'
      and jsonb_array_length(followed) + ${followed.length} <= ${MOST}`;
  if (kept.count > 0) return;
  const { state } = await getRecording(shot);
  if (state === 'ended') throw new Fault(409, 'over', 'This recording is over.');
}

/**
 * What the view of a new clip follows; null where nothing moved.
 * @param followed, shown as they are stored of a recording
 */
export function followOf(
  { followed, shown }: { followed: unknown; shown: unknown },
  { width, height, times }: Size & { times: readonly number[] },
): Follow | null {
  // Whatever is wrong with one of them, the others and the film are more.
  const all = z.array(followedSchema.element.nullable().catch(null)).catch([]).parse(followed);
  const part = shownSchema.safeParse(shown);
  if (!part.success) return null;
  const { of } = part.data;
  const scale = { x: width / of.width, y: height / of.height };
  const noted = all.filter((one) => one !== null);
  const follow = followSteps(noted, times, scale).map(({ from, x, y }) => ({
    ...{ from, x: within(x), y: within(y) },
  }));
  return follow.length > 0 ? follow : null;
}
