import { releaseProxy, wrap, type Remote } from 'comlink';
import { notify } from '../notices/noticeStore';

/** Asks a worker for something. @throws when it dies before it has answered */
export type Ask<T> = <A>(what: (worker: Remote<T>) => Promise<A>) => Promise<A>;

interface Running<T> {
  remote: Remote<T>;
  /** Rejects once the worker is dead: its answers would never come. */
  died: Promise<never>;
}

/**
 * A worker that is started when it is first asked. One that dies is said, and the next asking
 * starts another.
 */
export function workerOf<T>(start: () => Worker): Ask<T> {
  let running: Running<T> | null = null;
  const begin = (): Running<T> => {
    const worker = start();
    const remote = wrap<T>(worker);
    const died = new Promise<never>((_, reject) => {
      worker.onerror = (event) => {
        event.preventDefault();
        running = null;
        remote[releaseProxy]();
        worker.terminate();
        notify({
          key: 'worker',
          tone: 'bad',
          title: 'A part of Rezzik in this page has stopped',
          lines: ['It is started anew with the next thing you do. Nothing is lost.'],
          reason: event.message,
        });
        reject(new Error('This was interrupted. Do it once more.'));
      };
    });
    died.catch(() => undefined);
    return { remote, died };
  };
  return (what) => {
    running ??= begin();
    const { remote, died } = running;
    return Promise.race([what(remote), died]);
  };
}
