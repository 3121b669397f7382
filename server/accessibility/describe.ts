import type { MessageBus } from 'dbus-native';
import { z } from 'zod';
import { isShown, type ScreenWindow } from '@/core/contracts/display';
import { contains, centre, intersection, type Rect } from '@/core/geometry/rect';
import { partWords } from '@/core/naming/partWords';
import type { DescribedPart } from '@/core/screen/parts/described';
import {
  accessibilityBus,
  askOf,
  propertyOf,
  REGISTRY,
  refSchema,
  whileWanted,
  type Ref,
} from './bus';

/** So many parts and no more; a program may have any number. */
const MOST = 1_500;
/** Of a thing with more children only those at places inside it are asked for. */
const MANY = 300;
const PATIENCE = 300;
/** Such places lie so far apart, px: hardly more than half a row, and a few columns. */
const PROBE = { across: 90, down: 12 };
/** What is smaller nobody points at, px. */
const SMALLEST = 6;

/** Coordinates of the screen, or of the window (AtspiCoordType). */
const SCREEN = 0;
const boxSchema = z
  .tuple([z.int(), z.int(), z.int(), z.int()])
  .transform(([x, y, width, height]): Rect => ({ x, y, width, height }));

/** A part with what its program calls it and its kind. */
export interface Thing extends Rect {
  role: string;
  name: string;
  inner: boolean;
}

interface Walk {
  bus: MessageBus;
  until: number;
  things: Thing[];
  /** From back to front. */
  windows: readonly ScreenWindow[];
}

/** A window that a program describes, and how its places are to be read. */
interface Place {
  window: ScreenWindow;
  /** What is added to each place: some toolkits count from their window's corner. */
  origin: { x: number; y: number };
  inner: boolean;
}

/**
 * The parts of the windows on the screen as the programs themselves describe them, by AT-SPI over
 * D-Bus, where somebody would point at them. What lies under other windows is left out.
 * @param windows from back to front
 * @param within how long all of it may take, ms
 * @returns none where there is no such bus or nobody answers
 */
export async function describeWindows(
  windows: readonly ScreenWindow[],
  within: number,
): Promise<DescribedPart[]> {
  const things = await thingsIn(windows, within);
  return things.flatMap(({ role, name, inner, ...box }) => {
    const words = partWords(role, name);
    return words ? [{ ...box, words, ...(inner && { inner: true as const }) }] : [];
  });
}

/** All that programs tell of what is on the screen, also what only holds other things together. */
export async function thingsIn(windows: readonly ScreenWindow[], within: number): Promise<Thing[]> {
  const things: Thing[] = [];
  const until = Date.now() + within;
  const walking = async () => {
    const bus = await accessibilityBus();
    const walk: Walk = { bus, until, things, windows: windows.filter(isShown) };
    await whileWanted(bus, async () => {
      const programs = await childrenOf(walk, REGISTRY);
      await Promise.all(programs.map((program) => describeProgram(walk, program)));
    });
  };
  let late: NodeJS.Timeout | undefined;
  const patience = new Promise((resolve) => (late = setTimeout(resolve, within)));
  // A bus that does not answer takes no more time than programs that do not.
  await Promise.race([walking().catch(() => undefined), patience]);
  clearTimeout(late);
  return [...things];
}

async function childrenOf({ bus }: Walk, ref: Ref): Promise<Ref[]> {
  return z.array(refSchema).parse(await askOf(bus, ref, 'Accessible', 'GetChildren'));
}

async function nameOf({ bus }: Walk, ref: Ref): Promise<string> {
  return z.string().parse(await propertyOf(bus, ref, 'Accessible', 'Name').catch(() => ''));
}

async function boxOf({ bus }: Walk, ref: Ref): Promise<Rect | null> {
  const asked = await askOf(bus, ref, 'Component', 'GetExtents', ['u', SCREEN]).catch(() => null);
  const box = boxSchema.safeParse(asked);
  return box.success && box.data.width > 0 && box.data.height > 0 ? box.data : null;
}

/** A program that says nothing of itself, or hangs, is left out. */
async function describeProgram(walk: Walk, program: Ref): Promise<void> {
  const [toolkit, version, tops] = await Promise.all([
    propertyOf(walk.bus, program, 'Application', 'ToolkitName').catch(() => ''),
    propertyOf(walk.bus, program, 'Application', 'Version').catch(() => ''),
    childrenOf(walk, program).catch(() => []),
  ]);
  // GTK 4 knows no screen, and tells where the content of its widgets lies.
  const isGtk4 = String(toolkit).toLowerCase() === 'gtk' && !String(version).startsWith('3');
  await Promise.all(
    tops.map(async (top) => {
      const [box, title] = await Promise.all([boxOf(walk, top), nameOf(walk, top)]);
      if (!box) return;
      const window = windowOf(walk, box, title, isGtk4);
      if (!window) return;
      const origin = isGtk4 ? cornerOf(window.bounds, box) : { x: 0, y: 0 };
      await describe(walk, top, { window, origin, inner: isGtk4 }, window.bounds);
    }),
  );
}

/** Where the content of a window begins: around it lies an even border of the toolkit's own. */
const cornerOf = (bounds: Rect, box: Rect) => ({
  x: Math.round(centre(bounds).x - centre(box).x),
  y: Math.round(centre(bounds).y - centre(box).y),
});

/** The window on the screen that a described one is: of its title, or lying where it lies. */
function windowOf(
  { windows }: Walk,
  box: Rect,
  title: string,
  byTitle: boolean,
): ScreenWindow | undefined {
  const area = (r: Rect | null) => (r ? r.width * r.height : 0);
  const likeness = ({ bounds }: ScreenWindow) => {
    const both = area(intersection(bounds, box));
    return both / (area(bounds) + area(box) - both);
  };
  const titled = windows.filter((w) => title !== '' && w.title === title);
  if (byTitle) return titled.length === 1 ? titled[0] : undefined;
  const near = (titled.length ? titled : windows).filter((w) => likeness(w) > 0.6);
  return near.sort((a, b) => likeness(b) - likeness(a))[0];
}

/** A thing and all in it, as far as they can be seen inside `clip`. */
async function describe(walk: Walk, ref: Ref, given: Place, clip: Rect): Promise<void> {
  if (Date.now() > walk.until || walk.things.length >= MOST) return;
  const told = await boxOf(walk, ref);
  if (!told) return;
  const there = { ...told, x: told.x + given.origin.x, y: told.y + given.origin.y };
  const inside = intersection(there, clip);
  // What opens from a thing may lie in a window of its own.
  const place = inside ? given : openedFrom(walk, given, there);
  const box = inside ?? (place && there);
  if (!place || !box || box.width < SMALLEST || box.height < SMALLEST) return;
  const { bus } = walk;
  const [role, name, count] = await Promise.all([
    askOf(bus, ref, 'Accessible', 'GetRoleName').catch(() => ''),
    nameOf(walk, ref),
    propertyOf(bus, ref, 'Accessible', 'ChildCount').catch(() => 0),
  ]);
  if (isInFront(walk, place.window, box)) {
    walk.things.push({ ...box, role: String(role), name, inner: place.inner });
  }
  const children =
    Number(count) > MANY
      ? await childrenAtPlaces(walk, ref, place, box)
      : Number(count) > 0
        ? await childrenOf(walk, ref).catch(() => [])
        : [];
  await Promise.all(children.map((child) => describe(walk, child, place, box)));
}

function openedFrom(walk: Walk, place: Place, box: Rect): Place | null {
  const window = windowOf(walk, box, '', false);
  return window && window.type !== 'window' ? { ...place, window } : null;
}

/** Of very many children those that are seen. */
async function childrenAtPlaces(
  { bus, until }: Walk,
  [program, path]: Ref,
  { origin }: Place,
  seen: Rect,
): Promise<Ref[]> {
  const found = new Map<string, Ref>();
  for (let y = seen.y + PROBE.down / 2; y < seen.y + seen.height; y += PROBE.down) {
    if (Date.now() > until) break;
    const row: Promise<void>[] = [];
    for (let x = seen.x + PROBE.across / 2; x < seen.x + seen.width; x += PROBE.across) {
      const body = [Math.round(x - origin.x), Math.round(y - origin.y), SCREEN];
      const call = { destination: program, path, interface: 'org.a11y.atspi.Component' };
      const asked = bus.invoke<unknown>(
        { ...call, member: 'GetAccessibleAtPoint', signature: 'iiu', body },
        { timeout: PATIENCE },
      );
      row.push(
        Promise.resolve(asked).then(
          (answer) => {
            const ref = refSchema.safeParse(answer);
            if (ref.success && ref.data[1] !== path) found.set(ref.data[1], ref.data);
          },
          () => undefined,
        ),
      );
    }
    await Promise.all(row);
  }
  return [...found.values()];
}

/** True where no window lies over the middle of a part. */
function isInFront({ windows }: Walk, window: ScreenWindow, part: Rect): boolean {
  const front = windows.findLast((w) => contains(w.frameBounds ?? w.bounds, centre(part)));
  return front === undefined || front.id === window.id;
}
