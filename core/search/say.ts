import type { Asks, Part } from './query';
import { shifted, type Day } from '../values/day';

const NAMES =
  'January February March April May June July August September October November December'.split(
    ' ',
  );

const sayDay = ({ year, month, day }: Day): string => `${day} ${NAMES[month - 1] ?? ''} ${year}`;

function sayTaken({ from, end }: Extract<Asks, { kind: 'taken' }>): string {
  const last = end && shifted(end, { days: -1 });
  if (from && last) {
    return sayDay(from) === sayDay(last)
      ? `on ${sayDay(from)}`
      : `${sayDay(from)} to ${sayDay(last)}`;
  }
  if (from) return `since ${sayDay(from)}`;
  return end ? `before ${sayDay(end)}` : 'any day';
}

function sayAsks(asks: Asks): string {
  switch (asks.kind) {
    case 'words': {
      const where = asks.field ? `in the ${asks.field}: ` : asks.phrase ? 'phrase: ' : 'word: ';
      return `${where}${asks.text}`;
    }
    case 'tag':
      return asks.name ? `tag: ${asks.name}` : 'without a tag';
    case 'from':
      return `from: ${asks.name}`;
    case 'kept':
      return asks.folder === null ? 'kept' : `kept in: ${asks.folder}`;
    case 'with':
      return asks.mark === 'hidden' ? 'something hidden' : `with: ${asks.mark}`;
    case 'taken':
      return sayTaken(asks);
    case 'size': {
      const how = { is: 'size', above: 'at least', below: 'at most' }[asks.compare];
      return `${how} ${asks.width} × ${asks.height}`;
    }
    case 'unclear':
      return asks.why;
  }
}

/** A part of a query as its chip says it. */
export function sayPart({ asks, without }: Part): string {
  if (!without || asks.kind === 'unclear') return sayAsks(asks);
  if (asks.kind === 'kept' && asks.folder === null) return 'not kept';
  if (asks.kind === 'with' && asks.mark === 'hidden') return 'nothing hidden';
  return `without ${sayAsks(asks).replace(/^word: /, '')}`;
}
