import { spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import type { Routine } from '@/core/contracts/way';
import { env } from '../base/env';
import { holdStill } from '../display/heldStills';
import { desktopNotice } from '../display/notice';
import { tellNewestPage, tellPages } from '../display/openPages';

/**
 * Takes as a routine says on a desktop that shows its screens through its portal: the picture is
 * stilled at once, and what is to be chosen is chosen in Rezzik's own page, which is opened where
 * none is.
 */
export async function runByPortal({ id, name, way }: Routine): Promise<void> {
  try {
    if (way.delay > 0) await wait(way.delay * 1000);
    const still = await holdStill();
    const choose = { still: still.id, routine: id };
    if (tellNewestPage({ routine: name, lines: [], choose })) {
      await desktopNotice(name, 'The picture is still. Choose in Rezzik.');
    } else await openPage(name, `/take?routine=${id}&still=${still.id}`);
  } catch (error) {
    const words = `Not taken. ${error instanceof Error ? error.message : String(error)}`;
    tellPages({ routine: name, lines: [words] });
    await desktopNotice(name, words);
  }
}

/** What opens an address may stay as long as the browser it started; by then it has failed or not, ms. */
const OPENING = 3_000;

/** Opens a page of Rezzik in front, as the desktop opens addresses; says where it cannot. */
async function openPage(name: string, path: string): Promise<void> {
  const address = `http://127.0.0.1:${env().port}${path}`;
  const child = spawn('xdg-open', [address], {
    ...{ detached: true, stdio: 'ignore', env: process.env },
  });
  child.unref();
  const isOpened = await new Promise<boolean>((resolve) => {
    child.once('error', () => resolve(false));
    child.once('exit', (code) => resolve(code === 0));
    setTimeout(() => resolve(true), OPENING).unref();
  });
  if (!isOpened) await desktopNotice(name, `The picture is still. Open ${address} to choose.`);
}
