import { useEffect, useLayoutEffect, useRef } from 'react';
import { listen, type Act, type Layer } from './dispatch';

interface Options {
  enabled?: boolean;
  layer?: Layer;
}

/**
 * Keys of a view, named by the character typed, so that they lie where they are printed on any
 * keyboard: “a”, “mod+z”, “shift+arrowleft”. They act wherever the focus is, but where the focused
 * control takes them itself.
 */
export function useKey(keys: string | readonly string[], act: Act, options: Options = {}): void {
  const { enabled = true, layer = 'view' } = options;
  const latest = useRef(act);
  useLayoutEffect(() => {
    latest.current = act;
  });
  const listed = typeof keys === 'string' ? keys : keys.join(' ');
  useEffect(() => {
    if (!enabled || listed === '') return;
    return listen(listed.split(' '), layer, (event) => latest.current(event));
  }, [listed, enabled, layer]);
}

/** Every key, before anything else of the view hears it; false for those not meant. */
export function useEveryKey(act: (event: KeyboardEvent) => boolean): void {
  const latest = useRef(act);
  useLayoutEffect(() => {
    latest.current = act;
  });
  useEffect(() => listen(null, 'still', (event) => latest.current(event)), []);
}

/** How the main modifier is called on this system. */
export const modifier = /Mac|iPhone|iPad/.test(navigator.userAgent) ? '⌘' : 'Ctrl';
