import { create } from 'zustand';
import type { Order } from '@/core/contracts/search';
import { LONGEST_QUERY, readQuery } from '@/core/search/grammar';
import type { Query } from '@/core/search/query';
import { dayOf } from '@/core/search/when';

/** What the Shelf is asked for; it stands in the address, so that a reload and a bookmark find it. */
export interface Asked {
  text: string;
  order: Order;
  bin: boolean;
}

interface Store extends Asked {
  /** The field was called for and has not come yet. */
  called: boolean;
}

const nothing: Asked = { text: '', order: 'day', bin: false };

export const useAsked = create<Store>(() => ({ ...nothing, called: false }));

/** The address as it is now. */
export function readAddress(): void {
  const query = new URLSearchParams(window.location.search);
  const order = query.get('order') === 'fitness' ? 'fitness' : 'day';
  useAsked.setState({
    text: (query.get('q') ?? '').slice(0, LONGEST_QUERY),
    order,
    bin: query.get('bin') === '1',
  });
}

/** What was typed, as it is understood today. */
export const readTyped = (text: string): Query => readQuery(text, dayOf(new Date()));

/**
 * Asks for something else. The page stays; its address follows.
 * @param how what is chosen is a step that Back leads away from, what is typed is not
 */
export function ask(change: Partial<Asked>, how: 'typed' | 'chosen' = 'typed'): void {
  useAsked.setState(change);
  const { text, order, bin } = useAsked.getState();
  const query = new URLSearchParams();
  if (text) query.set('q', text);
  if (order !== 'day') query.set('order', order);
  if (bin) query.set('bin', '1');
  const { pathname } = window.location;
  if (!pathname.startsWith('/shelf')) return;
  const said = query.toString();
  const address = said ? `${pathname}?${said}` : pathname;
  if (how === 'typed') window.history.replaceState(window.history.state, '', address);
  else window.history.pushState(null, '', address);
}

/** The field shall have the focus, as soon as it is there. */
export const callField = (): void => useAsked.setState({ called: true });
