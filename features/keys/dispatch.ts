import { flushSync } from 'react-dom';
import { apart, focusedKind, followFocus, modal, passing, wasReached } from './focus';
import { keyFromEvent, takesItself } from './press';

/** Says false when the key was not meant for it after all. */
export type Act = (event: KeyboardEvent) => boolean | void;

/**
 * Who hears a key first: what happens on the stilled picture, then the view, then what acts in
 * every view, then routines.
 */
const layers = ['still', 'view', 'anywhere', 'routine'] as const;
export type Layer = (typeof layers)[number];

interface Listener {
  /** Null hears every key. */
  keys: readonly string[] | null;
  layer: Layer;
  act: Act;
}

const listeners = new Set<Listener>();

/** Keys that give the same sign on some keyboards. */
const alsoTyped: Record<string, readonly string[]> = {
  '+': ['+', '='],
  delete: ['delete', 'backspace'],
};

/** Listens to keys until the result is called; the newest of a layer hears first. */
export function listen(keys: readonly string[] | null, layer: Layer, act: Act): () => void {
  const all = keys?.flatMap((key) => alsoTyped[key] ?? [key]) ?? null;
  const listener = { keys: all, layer, act };
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** What was typed into a field takes effect before the key that leaves it acts. */
function commitTyping(target: EventTarget | null): void {
  if (target instanceof HTMLElement && ['text', 'line'].includes(focusedKind(target)))
    flushSync(() => target.blur());
}

/** A sheet of settings lets keys through to its view, all but the one that closes it. */
function keepsKeys(target: Element, key: string): boolean {
  const around = target.closest(apart);
  return around !== null && (key === 'Escape' || !around.matches(passing));
}

/**
 * Held too long, Enter leads one step on and not through the next views, presses a button once, and
 * chooses nothing in the menu that it opened. Only in a text of several lines it goes on.
 */
const isHeldEnter = ({ repeat, key, target, ctrlKey, metaKey }: KeyboardEvent): boolean =>
  repeat && key === 'Enter' && (ctrlKey || metaKey || focusedKind(target) !== 'text');

function hear(event: KeyboardEvent): void {
  if (event.defaultPrevented || event.isComposing) return;
  const { target } = event;
  if (isHeldEnter(event)) {
    event.preventDefault();
    return event.stopPropagation();
  }
  if (target instanceof Element && keepsKeys(target, event.key)) return;
  // An open sheet of settings is closed first, even when what had the focus in it is gone.
  if (event.key === 'Escape' && document.querySelector(`${passing}[data-state="open"]`)) return;
  // The view behind a dialog rests, wherever the focus went meanwhile.
  if (document.querySelector(modal)) return;
  const key = keyFromEvent(event);
  if (key === null || takesItself(focusedKind(target), key, wasReached(target))) return;
  for (const layer of layers) {
    for (const listener of [...listeners].reverse()) {
      if (listener.layer !== layer || (listener.keys && !listener.keys.includes(key))) continue;
      if (listener.keys) commitTyping(target);
      if (listener.act(event) === false) continue;
      event.preventDefault();
      event.stopPropagation();
      return;
    }
  }
}

/** Hears every key before the controls do: which of them are theirs is said in one place. */
export function startKeys(): () => void {
  const unfollow = followFocus();
  document.addEventListener('keydown', hear, true);
  return () => {
    unfollow();
    document.removeEventListener('keydown', hear, true);
  };
}
