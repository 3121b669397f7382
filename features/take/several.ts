import { isOnStill, type Kind, type Way } from '@/core/contracts/way';
import type { Rect } from '@/core/geometry/rect';
import { messageOf } from '../api/ask';
import { encodeFrame } from '../pictures/pictures';
import { useSettings } from '../settings/settingsStore';
import { atOnce } from './atOnce';
import { currentAttempt, isCurrent, nextAttempt } from './attempt';
import { momentOf, useBack, wantedOf } from './back/backState';
import { finishTake } from './finish';
import { useLong } from './long/state';
import { takeLong } from './long/watch';
import type { Stilled } from './sources/contract';
import { sources } from './sources/list';
import { useTake, type Choosing } from './takeState';
import { confirmTake, letGo, neededDisplay, startTake, whyNotStill } from './takeStore';

/** Takes what is wanted of the film, or chooses on the moment that is seen. */
export async function takeMoments(kind: Kind = 'full'): Promise<void> {
  const { phase } = useTake.getState();
  const { film } = useBack.getState();
  if (phase.name !== 'film' || !film || !isOnStill(kind)) return;
  const mine = currentAttempt();
  const way: Way = { ...phase.way, kind, inUse: false };
  const seen = momentOf(film);
  const wanted = kind === 'full' ? wantedOf(film) : seen ? [seen] : [];
  useTake.setState({ phase: { name: 'stilling', way }, problem: null });
  const stilled: Stilled[] = [];
  const drop = () => stilled.forEach((one) => letGo({ stilled: one }));
  try {
    for (const moment of wanted)
      stilled.push(
        await sources[way.source].still({ ...way, display: neededDisplay(way), moment }),
      );
    if (!isCurrent(mine)) return drop();
    const [first] = stilled;
    const begun = first && taken(first, way);
    const choice = begun && atOnce(begun);
    if (begun && !choice) useTake.setState({ phase: begun });
    else await takeEach(stilled, way);
  } catch (error) {
    drop();
    if (isCurrent(mine))
      useTake.setState({ phase: { name: 'film', way: phase.way }, problem: whyNotStill(error) });
  }
}

/** What was watched becomes a shot; each piece one, where there are gaps. */
export async function takeWatched(): Promise<void> {
  const { phase } = useTake.getState();
  if (phase.name !== 'watching') return;
  try {
    await takePieces(await takeLong(), phase.way);
  } catch (error) {
    useLong.setState({ problem: messageOf(error) });
  }
}

/** The pieces of a long page become shots. */
export const takePieces = (
  pieces: readonly Stilled[],
  way: Way = useSettings.getState().settings.way,
): Promise<void> => takeEach(pieces, { ...way, kind: 'long' });

const taken = (stilled: Stilled, way: Way): Choosing => ({
  ...{ name: 'choosing', way, kind: way.kind, stilled },
  png: stilled.png ? Promise.resolve(stilled.png) : encodeFrame(stilled.picture),
});

/** Several pictures become a shot each: what was asked for is done with the first. */
async function takeEach([first, ...more]: readonly Stilled[], way: Way): Promise<void> {
  if (!first) return;
  nextAttempt();
  // The others are safe beside it.
  for (const piece of more) finishBeside(taken(piece, way));
  const begun = taken(first, way);
  const choice = atOnce(begun) ?? { crop: wholeOf(first) };
  if (way.ask) useTake.setState({ phase: { ...begun, chosen: choice } });
  else await confirmTake(begun, choice);
}

const wholeOf = ({ picture: { width, height } }: Stilled): Rect => ({ x: 0, y: 0, width, height });

function finishBeside({ stilled, png, way }: Choosing): void {
  finishTake({ stilled, png, choice: { crop: wholeOf(stilled) }, then: [], way, again: startTake });
}
