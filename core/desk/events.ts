import type { Point } from '../geometry/point';
import { bottom, right } from '../geometry/rect';
import { menus, plants } from './content';
import { layOutDesk } from './build';
import { deskBounds, windowTitles, type Desk, type WindowName } from './model';
import { mostScroll } from './windows';

/** What can happen to the desk. Places are desk pixels. */
export type DeskEvent =
  | { type: 'move'; at: Point }
  | { type: 'press'; at: Point }
  | { type: 'release' }
  | { type: 'leave' }
  | { type: 'blur' }
  | { type: 'wheel'; by: number }
  | { type: 'key'; key: string; down: boolean }
  | { type: 'tick'; now: number };

/** The desk after an event; the same desk when nothing changed. */
export function deskEvent(desk: Desk, event: DeskEvent): Desk {
  switch (event.type) {
    case 'tick':
      return { ...desk, now: event.now };
    case 'move':
      return moved(desk, event.at);
    case 'press':
      return pressed({ ...desk, pointer: event.at }, event.at);
    case 'release':
      return { ...desk, drag: null };
    case 'leave':
      return { ...desk, pointer: null, drag: null };
    case 'blur':
      return { ...desk, menu: null, alt: false, pointer: null, drag: null };
    case 'wheel':
      return { ...desk, scroll: Math.min(mostScroll, Math.max(0, desk.scroll + event.by)) };
    case 'key':
      return keyed(desk, event.key, event.down);
  }
}

function moved(desk: Desk, at: Point): Desk {
  if (desk.drag) return dragged(desk, at);
  const layout = layOutDesk(desk);
  const before = desk.pointer && layout.at(desk.pointer)?.id;
  const under = layout.at(at)?.id;
  const entry = /^entry:(\d)$/.exec(under ?? '')?.[1];
  return {
    ...desk,
    pointer: at,
    restingSince: before === under ? desk.restingSince : desk.now,
    menuEntry: entry ? Number(entry) : desk.menuEntry,
  };
}

/** A window follows the pointer and may hang over an edge, but its title stays reachable. */
function dragged(desk: Desk, at: Point): Desk {
  const { drag } = desk;
  if (!drag) return desk;
  const windows = desk.windows.map((w) => {
    if (w.name !== drag.window) return w;
    const x = Math.round(at.x - drag.grab.x);
    const y = Math.round(at.y - drag.grab.y);
    const bounds = {
      ...w.bounds,
      x: Math.min(Math.max(x, 60 - w.bounds.width), right(deskBounds) - 60),
      y: Math.min(Math.max(y, deskBounds.y), bottom(deskBounds) - 30),
    };
    return { ...w, bounds };
  });
  return { ...desk, pointer: at, windows };
}

function pressed(desk: Desk, at: Point): Desk {
  const id = layOutDesk(desk).at(at)?.id ?? 'ground';
  const [what = '', which = ''] = id.split(':');
  if (what === 'menu' && which) return toggleMenu(desk, which);
  if (what === 'entry') return chooseEntry(desk, Number(which));
  const closed: Desk = { ...desk, menu: null, menuEntry: -1 };
  switch (what) {
    case 'title': {
      const raised = raise(closed, which);
      const window = raised.windows.at(-1);
      if (!window) return raised;
      const grab = { x: at.x - window.bounds.x, y: at.y - window.bounds.y };
      return { ...raised, drag: { window: window.name, grab } };
    }
    case 'minimise':
      return setMinimised(closed, which, true);
    case 'task':
      return raise(setMinimised(closed, which, false), which);
    case 'water': {
      const plant = plants[Number(which)];
      return say(
        raise(closed, 'register'),
        'register',
        `Watering ${plant?.[1] ?? ''} for ten minutes`,
      );
    }
    case 'slip':
      return say(raise(closed, 'exchange'), 'exchange', 'Slip sent to the shop printer');
    case 'bed':
      return say(raise(closed, 'map'), 'map', `${which} chosen`);
    case 'row':
    case 'find':
      return raise(closed, 'register');
    case 'window':
      return raise(closed, which);
    default:
      return closed;
  }
}

function keyed(desk: Desk, key: string, down: boolean): Desk {
  if (key === 'Alt') return { ...desk, alt: down };
  if (!down || !desk.menu) return desk;
  const count = menus[desk.menu.name].length;
  if (key === 'ArrowDown') return { ...desk, menuEntry: (desk.menuEntry + 1) % count };
  if (key === 'ArrowUp')
    return { ...desk, menuEntry: (Math.max(desk.menuEntry, 0) + count - 1) % count };
  if (key === 'Enter' && desk.menuEntry >= 0) return chooseEntry(desk, desk.menuEntry);
  return { ...desk, menu: null, menuEntry: -1 };
}

function toggleMenu(desk: Desk, name: string): Desk {
  if (name !== 'Beds' && name !== 'Labels') return desk;
  const raised = raise(desk, 'register');
  const menu: Desk['menu'] = desk.menu?.name === name ? null : { window: 'register', name };
  return { ...raised, menu, menuEntry: -1 };
}

function chooseEntry(desk: Desk, index: number): Desk {
  const entry = desk.menu && menus[desk.menu.name][index];
  if (!entry) return desk;
  return say({ ...desk, menu: null, menuEntry: -1 }, 'register', entry[desk.alt ? 1 : 0]);
}

const isWindow = (name: string): name is WindowName => name in windowTitles;

function raise(desk: Desk, name: string): Desk {
  const window = desk.windows.find((w) => w.name === name);
  if (!window || desk.windows.at(-1) === window) return desk;
  return { ...desk, windows: [...desk.windows.filter((w) => w !== window), window] };
}

function setMinimised(desk: Desk, name: string, minimised: boolean): Desk {
  return { ...desk, windows: desk.windows.map((w) => (w.name === name ? { ...w, minimised } : w)) };
}

function say(desk: Desk, window: string, words: string): Desk {
  return isWindow(window) ? { ...desk, said: { ...desk.said, [window]: words } } : desk;
}

/** The middle of a hot area, for tests and for keys that act on the desk. */
export function placeOf(desk: Desk, id: string): Point | null {
  const area = layOutDesk(desk).area(id);
  if (!area) return null;
  return { x: area.rect.x + area.rect.width / 2, y: area.rect.y + area.rect.height / 2 };
}
