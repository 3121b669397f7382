import { create } from 'zustand';
import type { Order } from '@/core/contracts/search';
import type { Day } from '@/core/search/when';

/** What the Shelf is asked for; it stands in the address, so that a reload and a bookmark find it. */
export interface Asked {
  text: string;
  order: Order;
  bin: boolean;
}

interface Store extends Asked {
  /** Counts how often the field was called for. */
  called: number;
}

const nothing: Asked = { text: '', order: 'day', bin: false };

export const useAsked = create<Store>(() => ({ ...nothing, called: 0 }));

/** The address as it is now. */
export function readAddress(): void {
  const query = new URLSearchParams(window.location.search);
  const order = query.get('order') === 'fitness' ? 'fitness' : 'day';
  useAsked.setState({ text: query.get('q') ?? '', order, bin: query.get('bin') === '1' });
}

/** Asks for something else. The page stays; its address follows. */
export function ask(change: Partial<Asked>): void {
  useAsked.setState(change);
  const { text, order, bin } = useAsked.getState();
  const query = new URLSearchParams();
  if (text) query.set('q', text);
  if (order !== 'day') query.set('order', order);
  if (bin) query.set('bin', '1');
  const { pathname } = window.location;
  if (!pathname.startsWith('/shelf')) return;
  const said = query.toString();
  window.history.replaceState(window.history.state, '', said ? `${pathname}?${said}` : pathname);
}

/** The field shall have the focus, as soon as it is there. */
export const callField = (): void => useAsked.setState(({ called }) => ({ called: called + 1 }));

/** What day it is for the person. */
export function today(now = new Date()): Day {
  return { year: now.getFullYear(), month: now.getMonth() + 1, day: now.getDate() };
}
