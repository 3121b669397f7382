import x11, { type XEvent } from 'x11';
import type { SizeWish } from '@/core/contracts/format';
import { Fault } from '../base/fault';
import { plainPicture } from '../keep/encode';
import { getPaintable } from '../shots/rows';
import { allowedScreen } from './access';
import { clipboardForms, forgetFile } from './clipboardForms';
import { ask, type Screen } from './connection';
import { atomsOf, handOver, ownersAtoms, sendOn, type Selection } from './selection';
import { shared } from '../base/shared';

/** The window that owns the clipboard of a display for us, and what the X server's clock last said. */
interface Owner {
  screen: Screen;
  window: number;
  atoms: Map<string, number>;
  clock: number;
  /** What goes out in pieces is finished, also once something else is on the clipboard. */
  sending: Selection['sending'];
}

const APPEND = 2;
const STRING = 31;

/** The picture on the clipboard, for as long as nobody else puts something there. */
const kept = shared<{ owner?: Owner; offer?: Selection }>('clipboard', () => ({}));

/** Puts a shot, as it leaves, on the clipboard of this computer. @throws Fault 403, 404, 503 */
export async function copyToDisplay(shot: string, size: SizeWish = {}): Promise<void> {
  const open = await allowedScreen();
  const { png } = await plainPicture(await getPaintable(shot), size);
  await offer(open, png);
}

/** Offers a PNG; it is handed over whenever a program asks for it. @throws Fault 503 */
export async function offer(open: Screen, png: Buffer): Promise<void> {
  const owner = await ownerOn(open);
  const { window, atoms, sending } = owner;
  const clipboard = atoms.get('CLIPBOARD') ?? 0;
  const since = await now(owner);
  await forgetFile();
  kept.offer = {
    ...{ screen: open, window, atoms, since, sending },
    forms: formsOf(png, atoms),
  };
  open.X.SetSelectionOwner(window, clipboard, since);
  const holder = await ask<number>((done) => open.X.GetSelectionOwner(clipboard, done));
  if (holder !== window) {
    const words = 'Another program holds the clipboard and does not let go.';
    throw new Fault(503, 'no-clipboard', words);
  }
}

/** The file that stands for the picture goes, and none is made of it again; the picture stays. */
export async function forgetCopiedFile(): Promise<void> {
  const current = kept.offer;
  current?.forms.delete(current.atoms.get('text/uri-list') ?? 0);
  await forgetFile();
}

/** Each form by its atom, made when it is first asked for. */
function formsOf(png: Buffer, atoms: Map<string, number>): Selection['forms'] {
  const all = Object.entries(clipboardForms).map(([name, make]) => {
    let made: Promise<Buffer> | undefined;
    return [atoms.get(name) ?? 0, () => (made ??= make(png))] as const;
  });
  return new Map(all);
}

async function ownerOn(open: Screen): Promise<Owner> {
  const before = kept.owner;
  if (before?.screen === open) return before;
  const { X, root } = open;
  const names = ['CLIPBOARD', ...ownersAtoms, ...Object.keys(clipboardForms), 'REZZIK_CLOCK'];
  const atoms = await atomsOf(open, names);
  const owner: Owner = { screen: open, window: X.AllocID(), atoms, clock: 0, sending: new Map() };
  const eventMask = x11.eventMask.PropertyChange ?? 0x400000;
  X.CreateWindow(owner.window, root, -10, -10, 1, 1, 0, 0, 0, 0, { eventMask });
  X.on('event', (event) => hear(owner, event));
  kept.owner = owner;
  return owner;
}

/** The time on the X server, which alone says who came last (ICCCM 2.1): a property that changes tells it. */
async function now(owner: Owner): Promise<number> {
  const { X } = owner.screen;
  const property = owner.atoms.get('REZZIK_CLOCK') ?? 0;
  X.ChangeProperty(APPEND, owner.window, property, STRING, 8, Buffer.alloc(0));
  // What happened before an answer is told before it.
  await ask((done) => X.GetInputFocus(done));
  return owner.clock;
}

function hear(owner: Owner, event: XEvent): void {
  if (event.name === 'PropertyNotify' && event.wid === owner.window) owner.clock = event.time;
  const current = kept.offer;
  if (current?.window !== owner.window || current.screen !== owner.screen) return;
  if (event.name === 'SelectionRequest') void handOver(current, event);
  if (event.name === 'PropertyNotify') sendOn(current, event);
  // What is on its way to somebody still arrives.
  if (event.name === 'SelectionClear') current.forms = new Map();
}
