'use client';

import type { MouseEvent } from 'react';

/** Goes to another view without asking the server. */
export function navigate(path: string, how: 'push' | 'replace' = 'push'): void {
  if (path === window.location.pathname) return;
  if (how === 'push') window.history.pushState(null, '', path);
  else window.history.replaceState(null, '', path);
}

/** For links: a plain click stays in the shell, any other does what the browser does. */
export function followLink(event: MouseEvent<HTMLAnchorElement>): void {
  if (event.button !== 0 || event.metaKey || event.ctrlKey || event.shiftKey || event.altKey)
    return;
  event.preventDefault();
  navigate(event.currentTarget.pathname);
}
