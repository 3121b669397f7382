import { useEffect, useState } from 'react';
import { useKey } from '../keys/useKey';

/** True while Space is held, where the focused control has no use for it. */
export function useHeldSpace(): boolean {
  const [held, setHeld] = useState(false);
  useKey('space', () => setHeld(true));
  useEffect(() => {
    const up = (event: KeyboardEvent) => event.key === ' ' && setHeld(false);
    const leave = () => setHeld(false);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', leave);
    return () => {
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', leave);
    };
  }, []);
  return held;
}
