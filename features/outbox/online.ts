import { useEffect, useState } from 'react';
import { useOutbox } from './outbox';

/** False while the browser has no network or the server did not answer the last time. */
export function useOnline(): boolean {
  const [connected, setConnected] = useState(navigator.onLine);
  const unreachable = useOutbox((s) => s.unreachable);
  useEffect(() => {
    const look = () => setConnected(navigator.onLine);
    window.addEventListener('online', look);
    window.addEventListener('offline', look);
    return () => {
      window.removeEventListener('online', look);
      window.removeEventListener('offline', look);
    };
  }, []);
  return connected && !unreachable;
}
