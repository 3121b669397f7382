import type { Size } from '@/core/geometry/size';
import { create } from 'zustand';

/** A shot that is held on top, to work from. */
export interface HeldShot {
  id: string;
  title: string;
  /** An object URL of its picture, let go with the window. */
  url: string;
}

interface SmallStore {
  window: Window | null;
  shot: HeldShot | null;
  /** True when it stays on top of other programs; an ordinary small window does not. */
  onTop: boolean;
}

export const useSmall = create<SmallStore>(() => ({ window: null, shot: null, onTop: false }));

/** Document Picture-in-Picture (WICG), as far as it is used. */
interface OnTop {
  requestWindow: (size: Size) => Promise<Window>;
}

const PLACE = 'rezzik-small-place';
const SIZE = { width: 330, height: 270 };

interface Place {
  left: number;
  top: number;
  width: number;
  height: number;
}

function lastPlace(): Partial<Place> {
  try {
    const read: unknown = JSON.parse(localStorage.getItem(PLACE) ?? '{}');
    return read && typeof read === 'object' ? read : {};
  } catch {
    return {};
  }
}

/** Opens the small window where it was last: on top where the browser can, else an ordinary one. */
export async function openSmall(shot: HeldShot | null = null): Promise<boolean> {
  const before = useSmall.getState();
  if (before.window && !before.window.closed) {
    letGo(before.shot);
    useSmall.setState({ shot });
    before.window.focus();
    return true;
  }
  const place = { ...SIZE, ...lastPlace() };
  const { documentPictureInPicture: top } = window as Window & {
    documentPictureInPicture?: OnTop;
  };
  const opened = top
    ? await top.requestWindow({ width: place.width, height: place.height }).catch(() => null)
    : null;
  const features = Object.entries({ popup: 1, ...place })
    .map(([name, value]) => `${name}=${value}`)
    .join(',');
  const small = opened ?? window.open('', 'rezzik-small', features);
  if (!small) return false;
  dress(small);
  small.addEventListener('pagehide', () => {
    const { screenX: left, screenY: top, innerWidth: width, innerHeight: height } = small;
    localStorage.setItem(PLACE, JSON.stringify({ left, top, width, height }));
    letGo(useSmall.getState().shot);
    useSmall.setState({ window: null, shot: null });
  });
  useSmall.setState({ window: small, shot, onTop: opened !== null });
  return true;
}

function letGo(shot: HeldShot | null): void {
  if (shot) URL.revokeObjectURL(shot.url);
}

/** The page's own looks, and its words for keyboards and screen readers. */
function dress(small: Window): void {
  const { document: inside } = small;
  inside.title = 'Rezzik';
  inside.documentElement.lang = 'en';
  inside.head.replaceChildren(
    ...[...document.querySelectorAll('style, link[rel="stylesheet"]')].map((node) =>
      inside.importNode(node, true),
    ),
  );
  inside.body.replaceChildren();
}
