import type { Focused } from './press';

/** What keeps all its keys, so that the view behind it does not move: open dialogs and menus. */
export const apart =
  '[role="dialog"], [role="alertdialog"], [role="menu"], [role="listbox"], [data-takes-keys]';

/** What lies over a view and yet belongs to it: its settings that are not on the strip itself. */
export const passing = '[data-passes-keys]';

/** An open dialog or menu that everything else waits for. */
export const modal = '[data-modal][data-state="open"], [role="menu"][data-state="open"]';

/** Input types that are no fields of words. */
const pressed = ['button', 'submit', 'reset', 'checkbox', 'file', 'color', 'image'];

/** What kind of control an element is, as far as keys are concerned. */
export function focusedKind(target: EventTarget | null): Focused {
  // Its view moves it by the same keys, and more.
  if (target instanceof Element && target.matches('[data-view-moves]')) return 'none';
  // A slider may be drawn: it is no element of HTML then.
  if (target instanceof Element && target.getAttribute('role') === 'slider') return 'slider';
  if (!(target instanceof HTMLElement)) return 'none';
  if (target instanceof HTMLTextAreaElement || target.isContentEditable) return 'text';
  if (target instanceof HTMLSelectElement) return 'list';
  const role = target.getAttribute('role');
  if (target instanceof HTMLInputElement) {
    if (target.type === 'range') return 'slider';
    if (target.type === 'radio') return 'radio';
    return pressed.includes(target.type) ? 'control' : 'line';
  }
  if (role === 'radio') return 'radio';
  if (target.hasAttribute('data-row')) return 'row';
  const isControl = target.matches('button, a[href], summary, [role="button"], [role="tab"]');
  return isControl ? 'control' : 'none';
}

/** True after a key that moves the focus, until anything else is pressed. */
let moving = false;
/** The element that the focus was moved to by keyboard, while it is there. */
let reached: EventTarget | null = null;

const movers = ['Tab', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End'];

/** Whether the focus was moved to an element by keyboard, rather than left there by a click. */
export const wasReached = (target: EventTarget | null): boolean =>
  target !== null && target === reached;

/** Follows how the focus gets where it is. */
export function followFocus(): () => void {
  const stop = new AbortController();
  const options = { capture: true, signal: stop.signal };
  const key = (event: KeyboardEvent) => (moving = movers.includes(event.key));
  const pointer = (event: PointerEvent) => {
    moving = false;
    // What is pressed by pointer again is meant by pointer, even if a key had led there.
    if (event.target instanceof Node && reached instanceof Node && reached.contains(event.target))
      reached = null;
  };
  const focus = (event: FocusEvent) => (reached = moving ? event.target : null);
  window.addEventListener('keydown', key, options);
  window.addEventListener('pointerdown', pointer, options);
  window.addEventListener('focusin', focus, options);
  return () => stop.abort();
}

/**
 * A field is done with: the keys go back to the view, to the place it names for that (`data-home`),
 * so that nobody is thrown to the start of the page.
 */
export function giveKeysBack(from: HTMLElement): void {
  if (from.closest(apart)) return;
  const home = document.querySelector<HTMLElement>('[data-home]');
  if (home) home.focus({ preventScroll: true });
  else from.blur();
}

/** For fields of one line: Enter and Esc are done with it. */
export function leaveByKey(event: { key: string; currentTarget: HTMLElement }): void {
  if (event.key === 'Enter' || event.key === 'Escape') giveKeysBack(event.currentTarget);
}
