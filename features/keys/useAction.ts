import { useSettings } from '../settings/settingsStore';
import { actionFacts, keyOf, type ActionName } from './actions';
import type { Act } from './dispatch';
import { modifier, useKey } from './useKey';

/** The key that an action has now. */
export const useKeyOf = (name: ActionName): string =>
  useSettings((s) => keyOf(name, s.settings.keys));

/** Acts when the action's key is pressed, whichever that is now. */
export function useAction(name: ActionName, act: Act, options: { enabled?: boolean } = {}): void {
  const layer = actionFacts(name).group === 'Anywhere' ? 'anywhere' : 'view';
  useKey(useKeyOf(name), act, { ...options, layer });
}

const signs: Record<string, string> = {
  enter: 'Enter',
  escape: 'Esc',
  delete: 'Delete',
  backspace: 'Backspace',
  space: 'Space',
  arrowleft: '←',
  arrowright: '→',
  arrowup: '↑',
  arrowdown: '↓',
  pageup: 'Page Up',
  pagedown: 'Page Down',
  shift: 'Shift',
  alt: 'Alt',
  mod: modifier,
};

/** A key as it is shown: “Shift T”. */
export const keyLabel = (key: string): string =>
  key === ''
    ? 'none'
    : key === '+'
      ? '+'
      : key
          .split('+')
          .map(
            (part) =>
              signs[part] ??
              (part.length === 1 ? part.toUpperCase() : part.replace(/^f(\d+)$/, 'F$1')),
          )
          .join(' ');
