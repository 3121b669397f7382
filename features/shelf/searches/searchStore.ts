import { create } from 'zustand';
import type { SavedSearch } from '@/core/contracts/search';
import { api } from '../../api/client';

/** The saved searches with how many shots each finds now. */
export const useSearches = create<{ searches: readonly SavedSearch[] }>(() => ({ searches: [] }));

let asked = 0;

export async function readSearches(): Promise<void> {
  asked += 1;
  const round = asked;
  try {
    const searches = await api.searches();
    if (round === asked) useSearches.setState({ searches });
  } catch {
    // What was known stays; it is asked again with the next change.
  }
}
