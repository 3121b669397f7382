import { useEffect } from 'react';

/**
 * Keys of a kind on the stilled picture, before anything else hears them; in a field only Enter.
 * A handler says true when the key was meant for it.
 */
export function useChooserKeys(act: (event: KeyboardEvent) => boolean): void {
  useEffect(() => {
    const heard = (event: KeyboardEvent) => {
      const { target } = event;
      if (target instanceof HTMLElement && target.closest('[role="dialog"]')) return;
      if (target instanceof HTMLInputElement && target.type !== 'radio') return;
      const press = event.key === 'Enter' || event.key === ' ';
      const control = target instanceof HTMLElement && target.closest('button, a, [role="radio"]');
      if (press && control && target.matches(':focus-visible')) return;
      if (!act(event)) return;
      event.preventDefault();
      event.stopPropagation();
    };
    document.addEventListener('keydown', heard, true);
    return () => document.removeEventListener('keydown', heard, true);
  }, [act]);
}
