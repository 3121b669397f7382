import type { DisplayAnswer } from '@/core/contracts/display';
import { env } from '../base/env';
import { Fault } from '../base/fault';
import { getSettings } from '../settings/settings';
import { closeSessionBus, hasPortal } from '../bus/bus';
import { portalStill } from './portalStill';
import { closeScreen, screen, unavailable, type Screen } from './connection';
import { monitors } from './monitors';
import { screenSize, stillScreen, type Still } from './still';
import { focusedWindow, windows } from './windows';
import { askMaybe } from './connection';

const NOT_ALLOWED =
  'Rezzik may not read this computer’s screen. Allow it in Setup › This computer.';
const NONE =
  'Rezzik was started without a display (DISPLAY is not set). Start it from the desktop whose screen it should take, or share a screen through the browser.';
const WAYLAND =
  'This desktop runs on Wayland: only windows of X programs can be seen here. Share the screen through the browser to take the others.';
const BY_PORTAL =
  'This desktop gives a picture of all its screens when it is asked, and may ask you first. It tells no program which windows there are: they are found in the picture, by their looks.';

/** What to know about a display that is there. */
const caution = (): string | undefined => (env().wayland ? WAYLAND : undefined);

/** @throws Fault 403 where the screen may not be read */
export async function checkAllowed(): Promise<void> {
  const { displayAllowed } = await getSettings();
  if (displayAllowed) return;
  closeScreen();
  closeSessionBus();
  throw new Fault(403, 'not-allowed', NOT_ALLOWED);
}

/** True where the screens are read through the desktop's portal: X sees only its own programs there. */
export const byPortal = async (): Promise<boolean> => env().wayland && (await hasPortal());

/** The screens as they are now, by whatever way this desktop has. @throws Fault 403, 503 */
export async function stillNow(): Promise<Still> {
  await checkAllowed();
  return (await byPortal()) ? portalStill() : stillScreen(await allowedScreen());
}

/** The display, if there is one and it may be read. @throws Fault 403, 503 */
export async function allowedScreen(): Promise<Screen> {
  await checkAllowed();
  const { display } = env();
  if (!display) throw unavailable(NONE);
  return screen(display);
}

/** What is on the display now, or why it cannot be said. */
export async function describeDisplay(): Promise<DisplayAnswer> {
  try {
    await checkAllowed();
    if (await byPortal())
      return { ...nothing, available: true, reason: BY_PORTAL, noWindowList: true };
    const open = await allowedScreen();
    const size = await screenSize(open);
    const found = await monitors(open, size);
    const list = await windows(open, found);
    const [focused, pointer] = await Promise.all([
      focusedWindow(open, list),
      askMaybe<{ rootX: number; rootY: number }>((done) => open.X.QueryPointer(open.root, done)),
    ]);
    return {
      available: true,
      reason: caution(),
      ...size,
      monitors: found,
      windows: list.map(({ top: _, ...window }) => window),
      focused,
      pointer: pointer && { x: pointer.rootX, y: pointer.rootY },
    };
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
    return { ...nothing, available: false, reason: error.message };
  }
}

const nothing = { monitors: [], windows: [], pointer: null };
