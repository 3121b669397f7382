/** Long after a page has come, so that it is in nobody's way, ms. */
const LATER = 8_000;

/** From then on Take opens while the server is stopped, too (public/offline.js). */
export function startOffline(): () => void {
  if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) {
    return () => undefined;
  }
  const timer = setTimeout(() => {
    // Where the browser will not have it, all is as it was.
    navigator.serviceWorker.register('/sw.js').catch(() => undefined);
  }, LATER);
  return () => clearTimeout(timer);
}
