import { useSettings } from '../take/settingsStore';
import { modifier, useKey } from '../ui/useKeys';
import { keyOf, type ActionName } from './actions';

/** The key that an action has now. */
export const useKeyOf = (name: ActionName): string =>
  useSettings((s) => keyOf(name, s.settings.keys));

/** Keys that give the same sign on some keyboards. */
const alsoTyped: Record<string, string> = {
  '+': '+&=&shift~+',
  '?': '?&shift~?',
  delete: 'delete&backspace',
};

/** Acts when the action's key is pressed, whichever that is now. */
export function useAction(
  name: ActionName,
  act: (event: KeyboardEvent) => void,
  options: { enabled?: boolean; inFields?: boolean } = {},
): void {
  const key = useKeyOf(name);
  const { enabled = true, inFields } = options;
  const usual = key.endsWith('+') && key.length > 1 ? key : key.replaceAll('+', '~');
  const keys = alsoTyped[key] ?? (key === '+' ? '+' : usual);
  useKey(keys || 'unused', act, {
    enabled: enabled && key !== '',
    inFields,
    joinedBy: '~',
    listedBy: '&',
  });
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
