import { limits } from '../values/limits';
import type { Kind } from '../contracts/way';

/** What a take is called by its kind. */
const words: Record<Kind, string> = {
  full: 'Screen',
  window: 'Window',
  region: 'Region',
  shape: 'Free shape',
  part: 'Part',
  repeat: 'Region',
  long: 'Long page',
};

/**
 * The first name of a take: what was taken, its number of the day, and where from, in this order,
 * so that the last part can be left out where it shall not be known.
 */
export const autoTitle = (kind: Kind, number: number, from: string): string =>
  `${words[kind]} ${number}${from ? `, ${from}` : ''}`.slice(0, limits.titleLength);
