import { create } from 'zustand';

/** What is there of a part while a shot is open. */
interface Held<S> {
  state: S | null;
}

/**
 * A part of what is known of the open shot, by the names of what belongs to it. Whoever shows something of it listens to this part alone,
 * so that a drag, say, wakes only what shows the drag.
 */
export function part<S extends object>(names: readonly string[]) {
  const store = create<Held<S>>(() => ({ state: null }));
  const own = new Set(names);
  return {
    store,
    get: (): S | null => store.getState().state,
    open: (state: S): void => store.setState({ state }),
    close: (): void => store.setState({ state: null }),
    /** Takes from a change what is this part's. */
    take(change: object): void {
      const mine = Object.entries(change).filter(([name]) => own.has(name));
      if (mine.length === 0) return;
      store.setState(({ state }) => ({
        state: state && { ...state, ...Object.fromEntries(mine) },
      }));
    },
    /** Reads something of it in a view; views are only shown while a shot is open. */
    use: <T>(read: (state: S) => T): T =>
      store(({ state }) => {
        if (!state) throw new Error('No shot is open.');
        return read(state);
      }),
  };
}
