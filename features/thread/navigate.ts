'use client';

import { useSyncExternalStore, type MouseEvent } from 'react';

const listeners = new Set<() => void>();

function listen(tell: () => void): () => void {
  listeners.add(tell);
  window.addEventListener('popstate', tell);
  return () => {
    listeners.delete(tell);
    window.removeEventListener('popstate', tell);
  };
}

/** The address, followed at once: the router's own hook follows in its own time. */
export const usePath = (): string => useSyncExternalStore(listen, () => window.location.pathname);

/** Goes to another view without asking the server. */
export function navigate(path: string, how: 'push' | 'replace' = 'push', query = ''): void {
  if (path === window.location.pathname) return;
  if (how === 'push') window.history.pushState(null, '', path + query);
  else window.history.replaceState(null, '', path + query);
  listeners.forEach((tell) => tell());
}

/** For links: a plain click stays in the shell, any other does what the browser does. */
export function followLink(event: MouseEvent<HTMLAnchorElement>): void {
  if (event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey || event.altKey)
    return;
  event.preventDefault();
  const { pathname, search } = event.currentTarget;
  navigate(pathname, 'push', search);
}
