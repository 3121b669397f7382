import { ask, type Screen } from './connection';
import { monitors } from './monitors';
import { screenSize } from './still';
import { windows } from './windows';

/** Who asks: a pager or the like, on behalf of the person (EWMH, _NET_ACTIVE_WINDOW). */
const BY_PERSON = 2;

/** Brings the window that shows Rezzik to the front, so that a take can be marked at once. */
export async function raiseRezzik(screen: Screen): Promise<boolean> {
  const { X, root } = screen;
  const found = await windows(screen, await monitors(screen, await screenSize(screen)));
  const page = found.findLast((w) => w.type === 'window' && /\bRezzik\b/.test(w.title));
  if (!page) return false;
  const atom = await ask<number>((done) => X.InternAtom(false, '_NET_ACTIVE_WINDOW', done));
  X.SendClientMessage(root, page.id, atom, 32, [BY_PERSON, 0, 0]);
  return true;
}
