import type { ScreenWindow } from '@/core/contracts/display';
import type { XDisplay } from '@/tests/lib/xDisplay';
import { screen } from '../display/connection';
import { monitors } from '../display/monitors';
import { screenSize } from '../display/still';
import { windows } from '../display/windows';

/** A window as the list has it, once it is shown. */
export async function listedWindow(display: XDisplay, title: string): Promise<ScreenWindow> {
  await display.windowId(title);
  const here = await screen(display.name);
  const found = await windows(here, await monitors(here, await screenSize(here)));
  const window = found.find((w) => w.title === title);
  if (!window) throw new Error(`no window ${title}`);
  return window;
}
