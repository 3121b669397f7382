import { expect, test } from '@jest/globals';
import { UNCUT } from './cuts';
import { keptPlaces, STRIP, stripPicture } from './strip';

const all = Array.from({ length: STRIP.pictures }, (_, place) => place);

test('each place shows the middle of its part of the film', () => {
  expect(all.map((place) => stripPicture(place, 120))).toEqual(all.map((place) => 10 * place + 5));
});

test('of what is cut away nothing is shown, and what is left takes all places', () => {
  expect(keptPlaces(UNCUT, 120)).toEqual(all);
  const start = { away: [{ from: 0, to: 60 }] };
  expect(keptPlaces(start, 120)).toEqual([6, 6, 7, 7, 8, 8, 9, 9, 10, 10, 11, 11]);
  const middle = { away: [{ from: 11, to: 120 }] };
  expect(keptPlaces(middle, 120)).toEqual(all.map(() => 0));
});

test('where no picture of the strip is kept, there is nothing to show', () => {
  expect(keptPlaces({ away: [{ from: 4, to: 120 }] }, 120)).toBeNull();
});
