// Ctrl-C: whatever was started is ended, in the reverse order of its start, and nothing else is begun.

const ends = [];
let stopped = false;

export const isStopped = () => stopped;

/** Remembers how to end something; call the result once it has ended by itself. */
export function onStop(end) {
  ends.push(end);
  return () => {
    const at = ends.indexOf(end);
    if (at >= 0) ends.splice(at, 1);
  };
}

/** From now on Ctrl-C and its like end what was started; the command then comes to its own end. */
export function heedStops(say) {
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => {
      if (!stopped) say('\nStopping …');
      stopped = true;
      for (const end of ends.splice(0).reverse()) end();
    });
  }
}
