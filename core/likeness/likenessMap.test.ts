import { describe, expect, test } from '@jest/globals';
import { lowLikeness, SPOT, worstSpot } from './likenessMap';

/** A picture of one grey with a dark bar, and a map of it with given values in and off the bar. */
function barred(inBar: number, elsewhere: number) {
  const [width, height] = [200, 100];
  const isBar = (x: number, y: number) => x >= 90 && x < 110 && y >= 40 && y < 60;
  const data = new Uint8ClampedArray(width * height * 4).fill(230);
  const values = new Float64Array(width * height).fill(elsewhere);
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1) {
      if (!isBar(x, y)) continue;
      data.fill(20, (y * width + x) * 4, (y * width + x) * 4 + 3);
      values[y * width + x] = inBar;
    }
  return { picture: { data, width, height }, map: { data: values, width, height } };
}

describe('lowLikeness', () => {
  test('is told by the edges, not by the flat ground around them', () => {
    const { picture, map } = barred(0.5, 0.999);
    expect(lowLikeness(map, picture)).toBe(0.5);
    const flat = barred(1, 0.7);
    flat.map.data.fill(0.999, 0, 200 * 36);
    expect(lowLikeness({ ...flat.map, data: flat.map.data.map(() => 0.97) }, flat.picture)).toBe(
      0.97,
    );
  });

  test('leaves out the worst fiftieth', () => {
    const { picture, map } = barred(0.99, 0.99);
    map.data[45 * 200 + 90] = 0.1;
    expect(lowLikeness(map, picture)).toBe(0.99);
  });

  test('is one where nothing is to be seen', () => {
    const { map } = barred(0.2, 0.2);
    const plain = new Uint8ClampedArray(200 * 100 * 4).fill(128);
    expect(lowLikeness(map, { data: plain, width: 200, height: 100 })).toBe(1);
  });
});

describe('worstSpot', () => {
  test('lies around the least value, within the picture', () => {
    const { picture, map } = barred(0.9, 1);
    map.data[50 * 200 + 100] = 0.3;
    expect(worstSpot(map, picture)).toEqual({
      at: { x: 76, y: 26, width: SPOT, height: SPOT },
      likeness: 0.3,
    });
    map.data[0] = 0.1;
    expect(worstSpot(map, picture).at).toMatchObject({ x: 0, y: 0 });
  });

  test('is as small as the picture where that is smaller than a spot', () => {
    const map = { data: [1, 0.4, 1, 1], width: 2, height: 2 };
    const picture = { data: new Uint8ClampedArray(10 * 10 * 4), width: 10, height: 10 };
    expect(worstSpot(map, picture).at).toEqual({ x: 0, y: 0, width: 10, height: 10 });
  });
});
