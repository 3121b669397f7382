import type { ShotDocument } from '../document/document';
import { undo, type History } from '../document/history';
import { sameDocument } from '../document/sameDocument';

/** `same`: nothing to do; `further`: what comes in is a state that undo leads back to; else `other`. */
export type Relation = 'same' | 'further' | 'other';

/**
 * How the shot that is here stands to one of the same identity that comes in.
 * @param here with its steps: some that cannot be gone back through say nothing
 */
export function relationOf(here: History, incoming: ShotDocument): Relation {
  if (sameDocument(here.document, incoming)) return 'same';
  let before = here;
  while (before.position > 0) {
    try {
      before = undo(before);
    } catch {
      return 'other';
    }
    if (sameDocument(before.document, incoming)) return 'further';
  }
  return 'other';
}

/**
 * An identity of its own for what comes in beside another one of its identity: made of what it says,
 * so that the same never comes in twice (UUID version 8: RFC 9562, §5.8).
 * @param hash at least 32 hexadecimal digits
 */
export function idOf(hash: string): string {
  const variant = ((parseInt(hash.slice(16, 17), 16) & 0x3) | 0x8).toString(16);
  return [
    hash.slice(0, 8),
    hash.slice(8, 12),
    `8${hash.slice(13, 16)}`,
    `${variant}${hash.slice(17, 20)}`,
    hash.slice(20, 32),
  ].join('-');
}
