import x11, { type Property, type XEvent } from 'x11';
import { ask, askMaybe, type Screen } from './connection';

/** What is handed over to other programs as a selection, by the conventions of ICCCM 2. */
export interface Selection {
  screen: Screen;
  window: number;
  /** When it became ours, on the X server's clock. */
  since: number;
  /** Numbers of atoms by name: the forms and what every owner answers. */
  atoms: Map<string, number>;
  /** What it can be had as; made when it is asked for. Empty when it is another program's now. */
  forms: Map<number, () => Promise<Buffer>>;
  /** Who is being sent something in pieces: what is left to send. */
  sending: Map<string, { property: number; type: number; left: Buffer }>;
}

/** What every owner has to answer (ICCCM 2.6.2). */
export const ownersAtoms = ['TARGETS', 'TIMESTAMP', 'MULTIPLE', 'INCR', 'ATOM_PAIR'] as const;

const ATOM = 4;
const INTEGER = 19;
const REPLACE = 0;
const NONE = 0;
const DELETED = 1;
/** What fits into one request; larger ones go in increments (ICCCM 2.7.2). */
const PIECE = 240_000;
/** Pairs that are read of a request for many forms at once. */
const MOST_PAIRS = 256;

const words = (numbers: readonly number[]): Buffer =>
  Buffer.from(Uint32Array.from(numbers, (n) => n >>> 0).buffer);

/** Another program's request: the form it asks for, or none where there is no such. */
export async function handOver(current: Selection, event: XEvent): Promise<void> {
  const { X } = current.screen;
  const { requestor, selection, target, time } = event;
  // Old programs name no property.
  const wanted = event.property || target;
  const isMany = target === current.atoms.get('MULTIPLE');
  const done = isMany ? many(current, requestor, wanted) : one(current, requestor, target, wanted);
  const property = (await done.catch(() => false)) ? wanted : NONE;
  if (X.stream.destroyed) return;
  const answer = { name: 'SelectionNotify', seq: 0, time, requestor, selection, target, property };
  X.SendEvent(requestor, 0, 0, answer);
}

/** Writes one form to where it is wanted. @returns false when there is no such form */
async function one(
  current: Selection,
  requestor: number,
  target: number,
  property: number,
): Promise<boolean> {
  const { screen, atoms, forms, since } = current;
  const { X } = screen;
  const known = (name: (typeof ownersAtoms)[number]): number => atoms.get(name) ?? NONE;
  if (target === known('TIMESTAMP')) {
    X.ChangeProperty(REPLACE, requestor, property, INTEGER, 32, words([since]));
    return true;
  }
  if (target === known('TARGETS')) {
    const all = [known('TARGETS'), known('TIMESTAMP'), known('MULTIPLE'), ...forms.keys()];
    X.ChangeProperty(REPLACE, requestor, property, ATOM, 32, words(all));
    return true;
  }
  const bytes = await forms.get(target)?.();
  if (!bytes || X.stream.destroyed) return false;
  if (bytes.length <= PIECE) {
    X.ChangeProperty(REPLACE, requestor, property, target, 8, bytes);
    return true;
  }
  X.ChangeWindowAttributes(requestor, { eventMask: x11.eventMask.PropertyChange ?? 0x400000 });
  current.sending.set(`${requestor} ${property}`, { property, type: target, left: bytes });
  X.ChangeProperty(REPLACE, requestor, property, known('INCR'), 32, words([bytes.length]));
  return true;
}

/** Several forms at once: pairs of what is asked for and where it goes; what fails becomes none. */
async function many(current: Selection, requestor: number, property: number): Promise<boolean> {
  const { X } = current.screen;
  const pair = current.atoms.get('ATOM_PAIR') ?? NONE;
  const asked = await askMaybe<Property>((done) =>
    X.GetProperty(0, requestor, property, 0, 0, 2 * MOST_PAIRS, done),
  );
  if (asked?.format !== 32) return false;
  const pairs = Array.from({ length: asked.data.length >> 2 }, (_, i) =>
    asked.data.readUInt32LE(i * 4),
  );
  for (let i = 0; i + 1 < pairs.length; i += 2) {
    const [target = NONE, place = NONE] = pairs.slice(i, i + 2);
    const given = place !== NONE && (await one(current, requestor, target, place));
    if (!given) pairs[i + 1] = NONE;
  }
  X.ChangeProperty(REPLACE, requestor, property, pair, 32, words(pairs));
  return true;
}

/** The asking program has read a piece: the next one, and an empty one at the end. */
export function sendOn(current: Selection, event: XEvent): void {
  if (event.state !== DELETED) return;
  const { wid, atom } = event;
  const key = `${wid} ${atom}`;
  const going = current.sending.get(key);
  if (!going) return;
  const piece = going.left.subarray(0, PIECE);
  current.screen.X.ChangeProperty(REPLACE, wid, going.property, going.type, 8, piece);
  if (piece.length === 0) current.sending.delete(key);
  else going.left = going.left.subarray(PIECE);
}

/** Numbers of atoms by name. */
export async function atomsOf(
  { X }: Screen,
  names: readonly string[],
): Promise<Map<string, number>> {
  const numbers = await Promise.all(
    names.map((name) => ask<number>((done) => X.InternAtom(false, name, done))),
  );
  return new Map(names.map((name, i) => [name, numbers[i] ?? NONE]));
}
