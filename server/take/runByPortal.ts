import { setTimeout as wait } from 'node:timers/promises';
import { isOnStill, type Routine } from '@/core/contracts/way';
import { holdStill } from '../display/heldStills';
import { desktopNotice } from '../display/notice';
import { tellPages } from '../display/openPages';
import { goOnInPage } from './inPage';

const ONE_PICTURE = 'This desktop gives one picture at a time: nothing can be followed or held.';

/**
 * Takes as a routine says on a desktop that shows its screens through its portal: the picture is
 * stilled at once, and what is to be chosen is chosen in Rezzik's own page, which is opened where
 * none is.
 */
export async function runByPortal({ id, name, way }: Routine): Promise<void> {
  try {
    if (!isOnStill(way.kind)) throw new Error(ONE_PICTURE);
    if (way.delay > 0) await wait(way.delay * 1000);
    const still = await holdStill();
    await goOnInPage({
      name,
      tell: { choose: { still: still.id, routine: id } },
      path: `/take?routine=${id}&still=${still.id}`,
      ...{ there: 'The picture is still.', act: 'choose' },
    });
  } catch (error) {
    const words = `Not taken. ${error instanceof Error ? error.message : String(error)}`;
    tellPages({ routine: name, lines: [words] });
    await desktopNotice(name, words);
  }
}
