import type { Days } from './when';

/** Where words can be asked for by name. */
export const wordFields = ['title', 'window', 'program', 'description'] as const;
export type WordField = (typeof wordFields)[number];

/** What a part of the field means, with its place in what was typed. */
export interface Part {
  /** First character. */
  start: number;
  /** After the last one. */
  end: number;
  /** Shots for which it holds are left out. */
  without: boolean;
  asks: Asks;
}

export type Asks =
  /** `open`: still being typed, so that it may be the beginning of a word. */
  | {
      kind: 'words';
      field: WordField | null;
      tokens: readonly string[];
      open: boolean;
      text: string;
      phrase: boolean;
    }
  | { kind: 'tag'; name: string }
  | { kind: 'from'; name: string }
  /** Kept in a folder by its name; null: kept anywhere. */
  | { kind: 'kept'; folder: string | null }
  | { kind: 'with'; mark: string }
  | { kind: 'taken'; from: Days['from'] | null; end: Days['end'] | null }
  | { kind: 'size'; compare: 'is' | 'above' | 'below'; width: number; height: number }
  /** What is understood of it is why nothing can be asked. */
  | { kind: 'unclear'; why: string };

export interface Query {
  parts: readonly Part[];
}

/** What really narrows the list. */
export const asking = (query: Query): readonly Part[] =>
  query.parts.filter(({ asks }) => asks.kind !== 'unclear');
