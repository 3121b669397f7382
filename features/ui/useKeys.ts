import { useHotkeys } from 'react-hotkeys-hook';

/**
 * A key that acts while no field has the focus. Names are those of the character typed, so keys
 * lie where they are printed on any keyboard layout. `joinedBy` stands between modifier and key,
 * for the key that is itself a plus, and `listedBy` between several keys.
 */
export function useKey(
  keys: string,
  act: (event: KeyboardEvent) => void,
  options: { enabled?: boolean; inFields?: boolean; joinedBy?: string; listedBy?: string } = {},
): void {
  const { enabled = true, inFields = false, joinedBy = '+', listedBy = ',' } = options;
  useHotkeys(keys, act, {
    enabled,
    preventDefault: true,
    // A radio in use takes arrow keys and Space for itself, and no others.
    enableOnFormTags: inFields || ['radio'],
    splitKey: joinedBy,
    delimiter: listedBy,
    useKey: true,
    ignoreEventWhen: (event) => event.defaultPrevented || inDialog(event) || meantForControl(event),
  });
}

/** An open dialog keeps its keys: the view behind it must not move. */
const inDialog = (event: KeyboardEvent): boolean =>
  event.target instanceof Element && event.target.closest('[role="dialog"]') !== null;

/**
 * Enter and Space belong to the control that was reached by keyboard. After a click the focus
 * stays on what was clicked without being meant: then they are keys like any other. A radio needs
 * Space only.
 */
function meantForControl(event: KeyboardEvent): boolean {
  if ((event.key !== 'Enter' && event.key !== ' ') || event.ctrlKey || event.metaKey) return false;
  const { target } = event;
  if (!(target instanceof HTMLElement) || target.getAttribute('role') === 'radio') return false;
  return target.matches('button, a, summary, [role="slider"]') && target.matches(':focus-visible');
}

/** How the main modifier is called on this system. */
export const modifier = /Mac|iPhone|iPad/.test(navigator.userAgent) ? '⌘' : 'Ctrl';
