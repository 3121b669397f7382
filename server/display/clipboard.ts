import type { SizeWish } from '@/core/contracts/format';
import { plainPicture } from '../keep/encode';
import x11, { type XEvent } from 'x11';
import { Fault } from '../http/fault';
import { getPaintable } from '../shots/rows';
import { ask, type Screen } from './connection';
import { allowedScreen } from './access';

/** The picture on the clipboard of a display, for as long as nobody else puts something there. */
interface Offer {
  screen: Screen;
  window: number;
  png: Buffer;
  atoms: Atoms;
  /** Who is being sent the picture in pieces: what is left to send. */
  sending: Map<string, { property: number; left: Buffer }>;
}

interface Atoms {
  CLIPBOARD: number;
  TARGETS: number;
  INCR: number;
  'image/png': number;
}

const ATOM = 4;
const REPLACE = 0;
const NONE = 0;
const DELETED = 1;
/** What fits into one request; larger pictures go in increments (ICCCM 2.7.2). */
const PIECE = 240_000;

const shared = globalThis as typeof globalThis & { rezzikOffer?: Offer };

/** Puts a shot, as it leaves, on the clipboard of this computer. @throws Fault 403, 404, 503 */
export async function copyToDisplay(shot: string, size: SizeWish = {}): Promise<void> {
  const open = await allowedScreen();
  const { png } = await plainPicture(await getPaintable(shot), size);
  await offer(open, png);
}

/** Offers a PNG; it is handed over whenever a program asks for it. */
export async function offer(open: Screen, png: Buffer): Promise<void> {
  const { X, root } = open;
  const names = ['CLIPBOARD', 'TARGETS', 'INCR', 'image/png'] as const;
  const found = await Promise.all(
    names.map((name) => ask<number>((done) => X.InternAtom(false, name, done))),
  );
  const [CLIPBOARD = 0, TARGETS = 0, INCR = 0, image = 0] = found;
  const before = shared.rezzikOffer;
  const same = before?.screen === open;
  const window = same ? before.window : X.AllocID();
  if (!same) {
    X.CreateWindow(window, root, -10, -10, 1, 1, 0, 0, 0, 0, {});
    X.on('event', (event) => answer(event));
  }
  const atoms = { CLIPBOARD, TARGETS, INCR, 'image/png': image };
  shared.rezzikOffer = { screen: open, window, png, atoms, sending: new Map() };
  X.SetSelectionOwner(window, CLIPBOARD, 0);
  const owner = await ask<number>((done) => X.GetSelectionOwner(CLIPBOARD, done));
  if (owner !== window) {
    throw new Fault(
      503,
      'no-clipboard',
      'Another program holds the clipboard and does not let go.',
    );
  }
}

function answer(event: XEvent): void {
  const current = shared.rezzikOffer;
  if (!current) return;
  if (event.name === 'SelectionRequest') handOver(current, event);
  if (event.name === 'PropertyNotify' && event.state === DELETED) sendOn(current, event);
  if (event.name === 'SelectionClear') current.png = Buffer.alloc(0);
}

function handOver(current: Offer, event: XEvent): void {
  const { screen: open, atoms, png } = current;
  const { X } = open;
  const property = event.property || event.target;
  let given = property;
  if (event.target === atoms.TARGETS) {
    const list = Buffer.alloc(8);
    list.writeUInt32LE(atoms.TARGETS, 0);
    list.writeUInt32LE(atoms['image/png'], 4);
    X.ChangeProperty(REPLACE, event.requestor, property, ATOM, 32, list);
  } else if (event.target === atoms['image/png'] && png.length > 0) {
    if (png.length <= PIECE) {
      X.ChangeProperty(REPLACE, event.requestor, property, event.target, 8, png);
    } else {
      X.ChangeWindowAttributes(event.requestor, {
        eventMask: x11.eventMask.PropertyChange ?? 0x400000,
      });
      const size = Buffer.alloc(4);
      size.writeUInt32LE(png.length, 0);
      current.sending.set(`${event.requestor} ${property}`, { property, left: png });
      X.ChangeProperty(REPLACE, event.requestor, property, atoms.INCR, 32, size);
    }
  } else given = NONE;
  X.SendEvent(event.requestor, 0, 0, {
    name: 'SelectionNotify',
    seq: 0,
    time: event.time,
    requestor: event.requestor,
    selection: event.selection,
    target: event.target,
    property: given,
  });
}

/** The asking program has read a piece: the next one, and an empty one at the end. */
function sendOn(current: Offer, event: XEvent): void {
  const window = event.wid;
  const key = `${window} ${event.atom}`;
  const going = current.sending.get(key);
  if (!going) return;
  const piece = going.left.subarray(0, PIECE);
  const { X } = current.screen;
  X.ChangeProperty(REPLACE, window, going.property, current.atoms['image/png'], 8, piece);
  if (piece.length === 0) current.sending.delete(key);
  else going.left = going.left.subarray(PIECE);
}
