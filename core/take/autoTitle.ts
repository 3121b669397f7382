import { limits } from '../values/limits';
import type { SourceName } from '../contracts/provenance';
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
  series: 'Screen',
  back: 'Screen',
  clip: 'Clip',
};

/** Where Full screen takes something else. */
const full: Partial<Record<SourceName, string>> = { web: 'Page', camera: 'Picture' };

/**
 * The first name of a take: what was taken, its number of the day, and where from, in this order,
 * so that the last part can be left out where it shall not be known.
 */
export const autoTitle = (
  kind: Kind,
  number: number,
  from: string,
  source: SourceName = 'display',
): string => {
  const what = (kind === 'full' && full[source]) || words[kind];
  return `${what} ${number}${from ? `, ${from}` : ''}`.slice(0, limits.titleLength);
};
