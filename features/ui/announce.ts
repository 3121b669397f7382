import { create } from 'zustand';

interface Said {
  words: string;
  /** Counts, so that the same words are read out again. */
  at: number;
}

/** What a screen reader is told of what was just done; shown by `ui/Announcer`. */
export const useSaid = create<Said>(() => ({ words: '', at: 0 }));

export const announce = (words: string): void =>
  useSaid.setState(({ at }) => ({ words, at: at + 1 }));
