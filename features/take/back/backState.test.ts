import { beforeEach, expect, test } from '@jest/globals';
import { goTo, momentOf, toggleMoment, useBack, wantedOf, type Film } from './backState';
import { agoOf } from './moments';

const moments = [
  { id: 7, since: 1000, until: 4000 },
  { id: 8, since: 4000, until: 9300 },
  { id: 9, since: 9300, until: null },
];
const film = (): Film => {
  const open = useBack.getState().film;
  if (!open) throw new Error('no film');
  return open;
};
const seen = () => momentOf(film())?.id;
const wanted = () => wantedOf(film()).map(({ id }) => id);

beforeEach(() =>
  useBack.setState({ film: { source: 'desk', moments, now: 10_000, at: 2, chosen: [] } }),
);

test('one steps to the ends and no further', () => {
  goTo(3);
  expect(seen()).toBe(9);
  goTo(-5);
  expect(seen()).toBe(7);
  goTo(1);
  expect(seen()).toBe(8);
});

test('the moment in sight is taken, unless some were chosen: those, oldest first', () => {
  expect(wanted()).toEqual([9]);
  toggleMoment();
  goTo(0);
  toggleMoment();
  goTo(1);
  expect(wanted()).toEqual([7, 9]);
  goTo(2);
  toggleMoment();
  expect(wanted()).toEqual([7]);
});

test('how long ago a moment was over is said to a tenth of a second, and never as now', () => {
  const said = moments.map((moment) => agoOf(moment, { now: 10_000 }));
  expect(said).toEqual(['6.0 s ago', '0.7 s ago', 'now']);
  expect(agoOf({ id: 1, since: 0, until: 9_990 }, { now: 10_000 })).toBe('0.1 s ago');
});
