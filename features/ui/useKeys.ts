import { useHotkeys } from 'react-hotkeys-hook';

/**
 * A key that acts while no field has the focus. Names are those of the character typed, so keys
 * lie where they are printed on any keyboard layout.
 */
export function useKey(
  keys: string,
  act: (event: KeyboardEvent) => void,
  options: { enabled?: boolean; inFields?: boolean } = {},
): void {
  const { enabled = true, inFields = false } = options;
  useHotkeys(keys, act, {
    enabled,
    preventDefault: true,
    enableOnFormTags: inFields,
    useKey: true,
    ignoreEventWhen: (event) => event.defaultPrevented,
  });
}

/** How the main modifier is called on this system. */
export const modifier = /Mac|iPhone|iPad/.test(navigator.userAgent) ? '⌘' : 'Ctrl';
