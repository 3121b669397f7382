import { isShown, type Monitor, type ScreenWindow } from '@/core/contracts/display';
import { limits } from '@/core/values/limits';
import { intersection, type Rect } from '@/core/geometry/rect';
import type { Geometry } from 'x11';
import { ask, askMaybe, type Screen } from './connection';
import { readWords, text, windowList, words } from './properties';

const VIEWABLE = 2;
const INPUT_OUTPUT = 1;

/** A window of the screen with the one that stands for it among the root's children. */
export interface FoundWindow extends ScreenWindow {
  top: number;
}

/**
 * All windows from back to front, minimised ones first, as they are now. Helpers that programs keep
 * off the screen are left out.
 */
export async function windows(
  screen: Screen,
  monitors: readonly Monitor[],
): Promise<FoundWindow[]> {
  const { X, root } = screen;
  const [{ children }, listed] = await Promise.all([
    ask<{ children: number[] }>((done) => X.QueryTree(root, done)),
    windowList(screen, '_NET_CLIENT_LIST'),
  ]);
  const managed = await askMaybe<number>((done) =>
    X.InternAtom(false, '_NET_SUPPORTING_WM_CHECK', done),
  ).then((atom) => (atom ? readWords(screen, root, atom) : []));
  const shown = await Promise.all(
    children.map((top) => shownWindow(screen, top, managed.length > 0)),
  );
  const found = shown.filter((w) => w !== null);
  const known = new Set(found.map((w) => w.id));
  const desktops = await readDesktops(screen);
  const hidden = await Promise.all(
    listed.filter((id) => !known.has(id)).map((id) => hiddenWindow(screen, id, desktops)),
  );
  return [...hidden.filter((w) => w !== null), ...found]
    .map((w) => ({
      ...w,
      monitor: isShown(w) ? monitorOf(w.frameBounds ?? w.bounds, monitors) : null,
    }))
    .filter((w) => w.monitor !== null || !isShown(w) || w.type === 'window');
}

/** The name of the monitor that shows most of a rectangle. */
export function monitorOf(r: Rect, monitors: readonly Monitor[]): string | null {
  let best: { name: string; area: number } | null = null;
  for (const m of monitors) {
    const shared = intersection(r, m);
    const area = shared ? shared.width * shared.height : 0;
    if (area > (best?.area ?? 0)) best = { name: m.name, area };
  }
  return best?.name ?? null;
}

async function shownWindow(
  screen: Screen,
  top: number,
  managed: boolean,
): Promise<FoundWindow | null> {
  const { X, root } = screen;
  const [attributes, geometry] = await Promise.all([
    askMaybe<{ klass: number; mapState: number; overrideRedirect: number }>((done) =>
      X.GetWindowAttributes(top, done),
    ),
    askMaybe<Geometry>((done) => X.GetGeometry(top, done)),
  ]);
  if (!attributes || !geometry) return null;
  if (attributes.mapState !== VIEWABLE || attributes.klass !== INPUT_OUTPUT) return null;
  const client = (await clientBelow(screen, top, managed ? 4 : 0)) ?? top;
  // Frames are override-redirect themselves; what holds a client is a window.
  const floats = attributes.overrideRedirect !== 0 && client === top;
  const [facts, place, inner, shadow, edges] = await Promise.all([
    factsOf(screen, client, floats),
    askMaybe<{ destX: number; destY: number }>((done) =>
      X.TranslateCoordinates(client, root, 0, 0, done),
    ),
    client === top ? geometry : askMaybe<Geometry>((done) => X.GetGeometry(client, done)),
    words(screen, client, '_GTK_FRAME_EXTENTS'),
    client === top ? [] : words(screen, client, '_NET_FRAME_EXTENTS'),
  ]);
  if (!facts || !place || !inner) return null;
  const border = geometry.borderWidth;
  const whole = {
    x: geometry.xPos,
    y: geometry.yPos,
    width: geometry.width + 2 * border,
    height: geometry.height + 2 * border,
  };
  const own = { x: place.destX, y: place.destY, width: inner.width, height: inner.height };
  const framed = client !== top || border > 0;
  return {
    id: client,
    top,
    ...facts,
    bounds: withoutEdges(own, shadow),
    ...(framed && { frameBounds: seenOfFrame(whole, own, edges, shadow) }),
    monitor: null,
    minimised: false,
  };
}

/** A window without its outermost pixels, given as left, right, top, bottom; never less than one. */
function withoutEdges(r: Rect, [left = 0, right = 0, above = 0, below = 0]: number[]): Rect {
  return {
    x: r.x + left,
    y: r.y + above,
    width: Math.max(1, r.width - left - right),
    height: Math.max(1, r.height - above - below),
  };
}

/**
 * What is seen of a frame. Window managers make it larger than what they draw, so that it can be
 * taken hold of: _NET_FRAME_EXTENTS says how much is drawn around the client. A client that draws
 * its own frame has its shadow within itself (_GTK_FRAME_EXTENTS), and nothing around it.
 */
function seenOfFrame(frame: Rect, client: Rect, drawn: number[], shadow: number[]): Rect {
  if (shadow.some((extent) => extent > 0)) return withoutEdges(client, shadow);
  if (drawn.length !== 4) return frame;
  const seen = withoutEdges(
    client,
    drawn.map((extent) => -extent),
  );
  return intersection(frame, seen) ?? frame;
}

/** The desktop that is shown, and what all of them are called (EWMH, root window properties). */
interface Desktops {
  current: number | undefined;
  names: readonly string[];
}

async function readDesktops(screen: Screen): Promise<Desktops> {
  const [[current], names] = await Promise.all([
    words(screen, screen.root, '_NET_CURRENT_DESKTOP'),
    text(screen, screen.root, '_NET_DESKTOP_NAMES'),
  ]);
  return { current, names: names.split('\0') };
}

/** On all desktops at once. */
const EVERYWHERE = 0xffffffff;

/** A window that is not on the screen: minimised, or on another desktop. */
async function hiddenWindow(
  screen: Screen,
  id: number,
  { current, names }: Desktops,
): Promise<FoundWindow | null> {
  const { X, root } = screen;
  const [facts, geometry, at, [desktop]] = await Promise.all([
    factsOf(screen, id, false),
    askMaybe<Geometry>((done) => X.GetGeometry(id, done)),
    askMaybe<{ destX: number; destY: number }>((done) =>
      X.TranslateCoordinates(id, root, 0, 0, done),
    ),
    words(screen, id, '_NET_WM_DESKTOP'),
  ]);
  if (!facts || !geometry || !at) return null;
  const isElsewhere = desktop !== undefined && desktop !== EVERYWHERE && desktop !== current;
  return {
    id,
    top: id,
    ...facts,
    bounds: { x: at.destX, y: at.destY, width: geometry.width, height: geometry.height },
    monitor: null,
    minimised: !isElsewhere,
    ...(isElsewhere && { desktop: cleanTitle(names[desktop] ?? '') || String(desktop + 1) }),
  };
}

/** The program's own window below a frame: the first that carries WM_STATE (ICCCM 4.1.3.1). */
async function clientBelow(screen: Screen, window: number, depth: number): Promise<number | null> {
  if ((await words(screen, window, 'WM_STATE')).length > 0) return window;
  if (depth === 0) return null;
  const tree = await askMaybe<{ children: number[] }>((done) => screen.X.QueryTree(window, done));
  for (const child of [...(tree?.children ?? [])].reverse()) {
    const found = await clientBelow(screen, child, depth - 1);
    if (found !== null) return found;
  }
  return null;
}

/** Types that are scenery, not windows. */
const scenery = '_NET_WM_WINDOW_TYPE_DESKTOP';

const types: Record<string, ScreenWindow['type']> = {
  _NET_WM_WINDOW_TYPE_DOCK: 'panel',
  _NET_WM_WINDOW_TYPE_MENU: 'menu',
  _NET_WM_WINDOW_TYPE_DROPDOWN_MENU: 'menu',
  _NET_WM_WINDOW_TYPE_POPUP_MENU: 'menu',
  _NET_WM_WINDOW_TYPE_COMBO: 'menu',
  _NET_WM_WINDOW_TYPE_TOOLTIP: 'tooltip',
  _NET_WM_WINDOW_TYPE_NOTIFICATION: 'tooltip',
};

async function factsOf(
  screen: Screen,
  id: number,
  floats: boolean,
): Promise<Pick<ScreenWindow, 'title' | 'program' | 'type'> | null> {
  const [utf8, plain, classes, typeAtoms] = await Promise.all([
    text(screen, id, '_NET_WM_NAME'),
    text(screen, id, 'WM_NAME'),
    text(screen, id, 'WM_CLASS'),
    words(screen, id, '_NET_WM_WINDOW_TYPE'),
  ]);
  const names = await Promise.all(
    typeAtoms.map((atom) => askMaybe<string>((done) => screen.X.GetAtomName(atom, done))),
  );
  if (names.includes(scenery)) return null;
  const known = names.map((name) => types[name ?? '']).find(Boolean);
  const [instance = '', program = ''] = classes.split('\0');
  return {
    title: cleanTitle(utf8 || plain),
    program: cleanTitle(program || instance),
    type: known ?? (floats ? 'menu' : 'window'),
  };
}

/** A title as it can be shown and stored: one line, no half characters, not endless. */
export function cleanTitle(title: string): string {
  return title
    .slice(0, limits.titleLength * 4)
    .replace(/[\u0000-\u001f\u007f-\u009f\u200e\u200f\u202a-\u202e\u2066-\u2069]+/g, ' ')
    .replace(/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g, '')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, limits.titleLength)
    .replace(/[\uD800-\uDBFF]$/, '');
}

/** The window that has the keyboard: by the window manager's word, else by the server's. */
export async function focusedWindow(
  screen: Screen,
  found: readonly FoundWindow[],
): Promise<number | null> {
  const [active] = await words(screen, screen.root, '_NET_ACTIVE_WINDOW');
  if (active && found.some((w) => w.id === active)) return active;
  const focus = await askMaybe<{ focus: number }>((done) => screen.X.GetInputFocus(done));
  let at = focus?.focus ?? 0;
  for (let depth = 0; at > 1 && at !== screen.root && depth < 12; depth += 1) {
    const known = found.find((w) => w.id === at || w.top === at);
    if (known) return known.id;
    const here = at;
    const tree = await askMaybe<{ parent: number }>((done) => screen.X.QueryTree(here, done));
    at = tree?.parent ?? 0;
  }
  return null;
}
