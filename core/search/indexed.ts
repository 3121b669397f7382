import { sequenceOf, tokensOf } from './fold';
import { places, type Texts } from './match';
import type { WordField } from './query';

/** The tokens by which a shot is found, and its text as one sequence of them for phrases. */
export interface Indexed {
  tokens: string[];
  sequence: string;
}

/** Letter before a token that is asked for in one field only. */
const marks: Record<WordField | 'tag', string> = {
  tag: 'g:',
  title: 't:',
  window: 'w:',
  program: 'p:',
  description: 'd:',
};

export const inField = (field: WordField | 'tag', token: string): string => marks[field] + token;
export const kindToken = (kind: string): string => `k:${kind.toLowerCase()}`;
export const sourceToken = (source: string): string => `s:${source}`;

/** More different tokens than these of one shot are not indexed. */
const MOST_TOKENS = 5_000;
const LONGEST_SEQUENCE = 100_000;

/**
 * What a shot is found by.
 * @param facts kinds of its marks (“hidden” for Hide marks) and its source
 */
export function indexOf(
  texts: Texts,
  picture: string,
  facts: { kinds: readonly string[]; source: string },
): Indexed {
  const sequences: string[] = [];
  const tokens = new Set<string>([sourceToken(facts.source), ...facts.kinds.map(kindToken)]);
  for (const place of places) {
    const own = tokensOf((place === 'picture' ? picture : texts[place]) ?? '');
    sequences.push(sequenceOf(own));
    for (const token of own) {
      if (tokens.size >= MOST_TOKENS) break;
      tokens.add(token);
      if (place !== 'picture') tokens.add(inField(place, token));
    }
  }
  return { tokens: [...tokens], sequence: sequences.join('\n').slice(0, LONGEST_SEQUENCE) };
}
