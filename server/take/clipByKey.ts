import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { clockOf } from '@/core/clip/clock';
import type { DisplayClip, DisplayRecording } from '@/core/contracts/clip';
import type { Routine, Way } from '@/core/contracts/way';
import { autoTitle } from '@/core/take/autoTitle';
import { shownOn } from '@/core/take/shownPart';
import { Fault } from '../base/fault';
import { endHere, recordDisplay, recordedNow } from '../clips/display';
import { endRecording } from '../clips/recordings';
import { clipOrRecording } from '../clips/rows';
import { allowedScreen } from '../display/access';
import { tellPages } from '../display/openPages';
import { stillScreen, type DisplayStill } from '../display/still';
import { takenOn } from '../shots/store';
import { choiceOf } from './choice';
import { say } from './said';

/**
 * Begins a clip of this computer's screen as a routine says; where one goes on already, ends that.
 * Nobody has to look at a page meanwhile, and no sign lies on the screen, which is in the picture.
 */
export async function clipByKey(routine: Routine, patience: number): Promise<void> {
  const going = recordedNow();
  if (going) return endByKey(routine, going);
  const { name, way } = routine;
  if (way.delay > 0) await wait(way.delay * 1000);
  const wish = await wishOf(way, patience);
  if (!wish) return;
  const { pointer, pressed } = way;
  await recordDisplay({ id: randomUUID(), pointer, pressed, ...wish }, { watched: false });
  tellPages({ routine: name, lines: [], recording: true });
}

type Wish = Pick<DisplayClip, 'display' | 'title' | 'shown' | 'follow'>;

/** @returns null where a person gave up choosing */
async function wishOf(way: Way, patience: number): Promise<Wish | null> {
  const { records } = way;
  const titled = async (from: string) =>
    autoTitle('clip', (await takenOn(new Date())) + 1, from, 'display');
  if (records === 'full') return { display: way.display, title: await titled('') };
  const still = await stillScreen(await allowedScreen());
  try {
    const choice = await choiceOf({ ...way, kind: records, ask: false }, still, patience);
    if (!choice) return null;
    const { crop, shape, window, part } = choice;
    const picture = { width: still.width, height: still.height };
    const origin = { x: 0, y: 0 };
    const { display, shown } = shownOn(displaysOf(still), { crop, shape, picture, origin });
    const title = await titled(part ?? window?.title ?? '');
    const follow = window && { window: window.id, x: window.bounds.x, y: window.bounds.y };
    return { display: display ?? 'all', title, shown, follow };
  } finally {
    still.letGo();
  }
}

const displaysOf = ({ monitors, width, height }: DisplayStill) => [
  ...monitors.map(({ name, x, y, width, height }) => ({
    id: name,
    bounds: { x, y, width, height },
  })),
  { id: 'all', bounds: { x: 0, y: 0, width, height } },
];

async function endByKey({ name }: Routine, { id, title }: DisplayRecording): Promise<void> {
  await endHere(id);
  await endRecording(id, { pieces: 0, bin: false });
  const clip = await clipOrRecording(id).catch((error: unknown) => {
    if (error instanceof Fault && error.status === 404) return null;
    throw error;
  });
  if (!clip) return say(name, ['Nothing was recorded: no picture came.'], null);
  if (clip.state === 'ready') {
    const lines = [`“${title}”, ${clockOf(clip.times.at(-1) ?? 0)}`, 'On the Shelf'];
    await say(name, lines, { shot: id, mark: false, keep: false });
    return;
  }
  const why = clip.problem ?? 'It could not be made ready now.';
  await say(name, [`“${title}” is no clip yet. ${why}`, 'What was recorded is kept.'], null);
}
