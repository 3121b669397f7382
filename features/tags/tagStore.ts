import { create } from 'zustand';
import type { Tag } from '@/core/contracts/search';
import { api } from '../api/client';

interface Store {
  tags: readonly Tag[];
  /** They were told at least once. */
  loaded: boolean;
}

/** All tags by name, with their counts. */
export const useTags = create<Store>(() => ({ tags: [], loaded: false }));

let asked = 0;

/** Asks for the tags anew, after some of them may be others. */
export async function readTags(): Promise<void> {
  asked += 1;
  const round = asked;
  try {
    const tags = await api.tags();
    if (round === asked) useTags.setState({ tags, loaded: true });
  } catch {
    // What was known stays; it is asked again with the next change.
  }
}

/** The colour of a tag by its name. */
export const useTagColour = (name: string): string =>
  useTags((s) => s.tags.find((tag) => tag.name === name)?.colour ?? 'transparent');
