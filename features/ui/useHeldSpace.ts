import { useEffect, useState } from 'react';

/** True while Space is held and no control has the focus. */
export function useHeldSpace(): boolean {
  const [held, setHeld] = useState(false);
  useEffect(() => {
    const onControl = (target: EventTarget | null) =>
      target instanceof HTMLElement &&
      target.matches('input, textarea, select, button, a, summary, [role="slider"]');
    const down = (event: KeyboardEvent) => {
      if (event.key !== ' ' || onControl(event.target)) return;
      event.preventDefault();
      setHeld(true);
    };
    const up = (event: KeyboardEvent) => event.key === ' ' && setHeld(false);
    const leave = () => setHeld(false);
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    window.addEventListener('blur', leave);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      window.removeEventListener('blur', leave);
    };
  }, []);
  return held;
}
