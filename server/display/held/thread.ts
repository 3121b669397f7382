import { setPriority } from 'node:os';
import { parentPort } from 'node:worker_threads';
import { answerCalls } from '../../base/acrossThreads';
import { closeScreen, screen } from '../connection';
import { ScreenWatch } from './watch';

/** The thread in which a screen is held: nobody waits for it. server/display/held/holding.ts talks to it. */
const YIELDING = 10;

let watch: ScreenWatch | null = null;

const holding = {
  /** @throws Error with words for the person */
  async begin(display: string, most: number): Promise<void> {
    setPriority(YIELDING);
    watch = await ScreenWatch.begin(await screen(display), most);
  },
  /** @returns why it is over, when it is */
  follow: async (): Promise<string> => (await watch?.follow()) ?? '',
  /** @returns once nothing of the display is open any more */
  async end(): Promise<void> {
    const before = watch;
    watch = null;
    closeScreen();
    await before?.end();
  },
  facts: () => watch?.facts() ?? null,
  moments: async () => (await watch?.moments()) ?? [],
  goOn: () => watch?.goOn(),
  picture: async (id: number, width: number) => (await watch?.picture(id, width)) ?? null,
  still: (id: number) => watch?.still(id) ?? null,
};
export type Holding = typeof holding;

if (parentPort) answerCalls(parentPort, holding);
