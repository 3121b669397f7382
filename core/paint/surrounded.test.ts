import { beforeAll, describe, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import fc from 'fast-check';
import { testTools } from '@/tests/lib/painting';
import { bitmap } from '@/server/paint/flatten';
import type { ShotDocument } from '../document/document';
import { untouched } from '../document/view';
import { parts, type Surround } from '../finish/surround/surround';
import type { PaintTools } from '../marks/contract';
import { markSchema } from '../marks/registry';
import { toBase64 } from '../raster/base64';
import { randomFrom } from '../random/random';
import { paintShot } from './painter';
import { leavesOpaque, wholeSize } from './whole';

let tools: PaintTools;
beforeAll(async () => {
  tools = await testTools();
});

const SIZE = { width: 60, height: 40 };
type Bytes = Uint8ClampedArray<ArrayBuffer>;

function noise(seed: number, alpha = 255): Bytes {
  const random = randomFrom(seed);
  const data = new Uint8ClampedArray(SIZE.width * SIZE.height * 4);
  for (let i = 0; i < data.length; i += 1) data[i] = i % 4 === 3 ? alpha : random() * 256;
  return data;
}

interface Painted {
  width: number;
  height: number;
  at: (x: number, y: number) => number[];
  data: Buffer;
}

function paint(frame: Bytes, surround: Surround, change: Partial<ShotDocument> = {}): Painted {
  const document: ShotDocument = { ...untouched(SIZE), ...change, finish: { surround } };
  const { width, height } = wholeSize(document, tools.shaper);
  const surface = createCanvas(width, height).getContext('2d');
  const picture = bitmap({ data: frame, ...SIZE });
  paintShot(surface, document, tools, (to) => to.drawImage(picture, 0, 0));
  const data = Buffer.from(surface.getImageData(0, 0, width, height).data);
  if (leavesOpaque(document, true, tools.shaper) && frame[3] === 255) {
    // What is said to be opaque is.
    expect(data.every((value, i) => i % 4 !== 3 || value === 255)).toBe(true);
  }
  const at = (x: number, y: number) => {
    const from = (y * width + x) * 4;
    return [...data.subarray(from, from + 4)];
  };
  return { width, height, at, data };
}

const own = (frame: Bytes, x: number, y: number) => {
  const from = (y * SIZE.width + x) * 4;
  return [...frame.subarray(from, from + 4)];
};
const RED = [200, 30, 40, 255];
const border = { width: 5, colour: '#C81E28', corners: 0 };
const frame = noise(3);

describe('a border', () => {
  test('lies around the picture, of which it leaves every pixel as it is', () => {
    const { width, height, at } = paint(frame, { border });
    expect([width, height]).toEqual([70, 50]);
    for (const [x, y] of [
      [0, 0],
      [69, 49],
      [4, 25],
      [65, 25],
      [35, 45],
    ] as const) {
      expect(at(x, y)).toEqual(RED);
    }
    for (let y = 0; y < 40; y += 1) {
      for (let x = 0; x < 60; x += 1) expect(at(x + 5, y + 5)).toEqual(own(frame, x, y));
    }
  });

  test('of no width is none', () => {
    const { width, at } = paint(frame, { border: { ...border, width: 0 } });
    expect(width).toBe(60);
    expect(at(0, 0)).toEqual(own(frame, 0, 0));
  });

  test('with round corners is cut at them, and has no seam with the picture', () => {
    const { width, height, at } = paint(frame, { border: { ...border, corners: 16 } });
    expect(at(0, 0)[3]).toBe(0);
    expect(at(width - 1, height - 1)[3]).toBe(0);
    expect(at(35, 2)).toEqual(RED);
    // From the edge of the corner inwards nothing is less than opaque again.
    for (let d = 6; d < 30; d += 1) expect(at(d, d)[3]).toBe(255);
    expect(at(30, 25)).toEqual(own(frame, 25, 20));
  });

  test('does not shine through what is transparent', () => {
    const clear = noise(3, 0);
    const { at } = paint(clear, { border: { ...border, corners: 16 } });
    expect(at(35, 2)).toEqual(RED);
    expect(at(35, 25)[3]).toBe(0);
    expect(at(8, 25)[3]).toBe(0);
  });

  test('follows a free shape', () => {
    const view = { crop: { x: 0, y: 0, ...SIZE }, shape: { kind: 'oval' as const } };
    const { at } = paint(frame, { border }, { view });
    expect(at(1, 1)[3]).toBe(0);
    expect(at(35, 2)).toEqual(RED);
    expect(at(2, 25)).toEqual(RED);
    expect(at(35, 25)).toEqual(own(frame, 30, 20));
    // Along the slope: the border, then the picture, all of it opaque.
    const slope = Array.from({ length: 30 }, (_, i) => at(5 + i, 5 + Math.round((i * 2) / 3))[3]);
    const first = slope.indexOf(255);
    expect(first).toBeGreaterThan(0);
    expect(slope.slice(first).every((alpha) => alpha === 255)).toBe(true);
  });
});

describe('a shadow', () => {
  const shadow = { x: 0, y: 6, blur: 8, colour: '#102030', strength: 50 };
  test('has its colour and strength, is dark below and gone at the edge', () => {
    const { width, height, at } = paint(frame, { shadow });
    // Deviation 4: boxes of 8, which reach 12.
    expect([width, height]).toEqual([60 + 24, 40 + 6 + 18]);
    const under = at(42, 6 + 40 + 2);
    // A canvas keeps colours multiplied by their alpha: the last digit is lost.
    under.slice(0, 3).forEach((value, i) => {
      expect(Math.abs(value - ([0x10, 0x20, 0x30][i] ?? 0))).toBeLessThanOrEqual(1);
    });
    expect(under[3]).toBeGreaterThan(80);
    expect(under[3]).toBeLessThan(128);
    expect(at(0, 0)[3]).toBe(0);
    expect(at(42, height - 1)[3]).toBeLessThanOrEqual(1);
    expect(at(42, 26)).toEqual(own(frame, 30, 20));
  });

  test('of a rectangle is that of any shape that happens to be one', () => {
    const clear = noise(3);
    // One pixel that is nearly opaque: worked out in the other way.
    clear[(20 * SIZE.width + 30) * 4 + 3] = 254;
    const [one, other] = [paint(frame, { shadow }), paint(clear, { shadow })];
    for (const [x, y] of [
      [42, 50],
      [5, 30],
      [80, 60],
    ] as const) {
      expect(Math.abs((one.at(x, y)[3] ?? 0) - (other.at(x, y)[3] ?? 0))).toBeLessThanOrEqual(1);
    }
  });

  test('follows a free shape', () => {
    const view = { crop: { x: 0, y: 0, ...SIZE }, shape: { kind: 'oval' as const } };
    const { at } = paint(frame, { shadow }, { view });
    expect(at(42, 48)[3]).toBeGreaterThan(60);
    expect(at(14, 46)[3]).toBeLessThan(20);
  });
});

describe('a background', () => {
  test('shows where the picture does not, and makes all opaque', () => {
    const background = { colours: ['#00FF00'], run: 'down' as const, room: 7 };
    const { at } = paint(noise(3, 0), { background });
    expect(at(0, 0)).toEqual([0, 255, 0, 255]);
    expect(at(30, 20)).toEqual([0, 255, 0, 255]);
    const solid = paint(frame, { background });
    expect(solid.at(7, 7)).toEqual(own(frame, 0, 0));
  });
  test('transparent it is room alone', () => {
    const { width, at } = paint(frame, { background: { colours: [], run: 'down', room: 7 } });
    expect(width).toBe(74);
    expect(at(6, 20)[3]).toBe(0);
    expect(at(7, 7)).toEqual(own(frame, 0, 0));
  });
});

test('a torn side is cut in its depth alone', () => {
  const ragged = { ...parts.ragged.first, bottom: true, depth: 10 };
  const { at, height } = paint(frame, { ragged });
  expect(height).toBe(40);
  expect(at(30, 28)[3]).toBe(255);
  expect(at(30, 2)).toEqual(own(frame, 30, 2));
  const last = Array.from({ length: 60 }, (_, x) => at(x, 39)[3] ?? 0);
  expect(last.some((alpha) => alpha === 0)).toBe(true);
});

test('columns stand side by side, each row once', () => {
  const { width, height, at } = paint(frame, { fold: { columns: 2, gap: 6 } });
  expect([width, height]).toEqual([126, 20]);
  expect(at(10, 5)).toEqual(own(frame, 10, 5));
  expect(at(66 + 10, 5)).toEqual(own(frame, 10, 25));
  expect(at(62, 5)[3]).toBe(0);
});

test('a tilt shows the picture once, within an edge that is smooth', () => {
  const grey = new Uint8ClampedArray(noise(1).map((v, i) => (i % 4 === 3 ? v : 90)));
  const { width, height, data } = paint(grey, { tilt: { across: 25, up: 10 } });
  const alphas = Array.from({ length: width * height }, (_, i) => data[i * 4 + 3] ?? 0);
  alphas.forEach((a, i) => {
    if (a > 250) expect(Math.abs((data[i * 4] ?? 0) - 90)).toBeLessThanOrEqual(1);
  });
  expect(alphas.filter((a) => a > 0 && a < 255).length).toBeGreaterThan(20);
  // cos 25° · cos 10° of its area, more or less for the perspective.
  const area = alphas.reduce((sum, a) => sum + a, 0) / 255;
  expect(area / (60 * 40)).toBeGreaterThan(0.75);
  expect(area / (60 * 40)).toBeLessThan(1.05);
});

describe('a watermark', () => {
  const words = { ...parts.watermark.first, text: 'X', opacity: 0.5, colour: '#000000', size: 30 };
  const white = new Uint8ClampedArray(60 * 40 * 4).fill(255);
  const darkened = ({ at }: Painted) => {
    const all: [number, number][] = [];
    for (let y = 0; y < 40; y += 1) {
      for (let x = 0; x < 60; x += 1) if ((at(x, y)[0] ?? 255) < 200) all.push([x, y]);
    }
    return all;
  };
  test('lies in its place, half as dark at half its opacity', () => {
    const middle = darkened(paint(white, { watermark: words }));
    expect(middle.length).toBeGreaterThan(20);
    const mean = middle.reduce((sum, [x]) => sum + x, 0) / middle.length;
    expect(Math.abs(mean - 30)).toBeLessThan(2);
    const painted = paint(white, { watermark: words });
    expect(Math.min(...middle.map(([x, y]) => painted.at(x, y)[0] ?? 0))).toBe(127);
    const corner = darkened(paint(white, { watermark: { ...words, place: 'bottom right' } }));
    expect(Math.min(...corner.map(([x]) => x))).toBeGreaterThan(35);
  });
  test('all over is in every quarter', () => {
    const all = darkened(paint(white, { watermark: { ...words, size: 15, tiled: true } }));
    for (const [left, top] of [
      [true, true],
      [true, false],
      [false, true],
      [false, false],
    ]) {
      expect(all.some(([x, y]) => x < 30 === left && y < 20 === top)).toBe(true);
    }
  });
  test('of a picture shows it, and nothing where that is damaged', () => {
    const canvas = createCanvas(10, 10);
    const surface = canvas.getContext('2d');
    surface.fillStyle = '#0000FF';
    surface.fillRect(0, 0, 10, 10);
    const png = toBase64(new Uint8Array(canvas.toBuffer('image/png')));
    const watermark = { ...words, picture: 'logo', opacity: 1, size: 25 };
    const held = { logo: { width: 10, height: 10, png } };
    expect(paint(white, { watermark }, { pictures: held }).at(30, 20)).toEqual([0, 0, 255, 255]);
    const damaged = {
      logo: { width: 10, height: 10, png: `${png.slice(0, 60)}${'A'.repeat(60)}` },
    };
    expect(paint(white, { watermark }, { pictures: damaged }).at(30, 20)).toEqual([
      255, 255, 255, 255,
    ]);
    expect(paint(white, { watermark }).at(30, 20)).toEqual([255, 255, 255, 255]);
  });
});

test('a caption is written on its plate', () => {
  const caption = { ...parts.caption.first, text: 'Reed', size: 8, colour: '#000000' };
  const { width, height, at } = paint(frame, { caption });
  // As wide as twelve ems.
  expect(width).toBe(96);
  expect(height).toBeGreaterThan(50);
  const row = Array.from({ length: width }, (_, x) => at(x, height - 9));
  expect(row.some(([r = 255]) => r < 80)).toBe(true);
  expect(at(width - 1, height - 1)).toEqual([255, 255, 255, 255]);
});

const everything: Surround = {
  fold: { columns: 2, gap: 4 },
  ragged: { ...parts.ragged.first, depth: 6 },
  border: { ...border, corners: 8 },
  tilt: { across: 15, up: -10 },
  shadow: parts.shadow.first,
  background: { colours: ['#DCE9E2', '#446655'], run: 'slant', room: 10 },
  caption: { ...parts.caption.first, text: 'Reed', size: 10 },
  watermark: parts.watermark.first,
};

test('what is hidden, and what is beside the view, leaves no trace in anything around it', () => {
  const view = { crop: { x: 6, y: 4, width: 50, height: 32 } };
  const marks = [
    markSchema.parse({ id: 'h', kind: 'blur', x: 20, y: 12, width: 16, height: 10, strength: 6 }),
  ];
  const isHidden = (x: number, y: number) =>
    (x >= 20 && x < 36 && y >= 12 && y < 22) || x < 6 || y < 4 || x >= 56 || y >= 36;
  const other = (from: Bytes, seed: number): Bytes => {
    const [data, elsewhere] = [from.slice(), noise(seed)];
    for (let i = 0; i < data.length; i += 1) {
      const at = Math.floor(i / 4);
      if (isHidden(at % 60, Math.floor(at / 60))) data[i] = elsewhere[i] ?? 0;
    }
    return data;
  };
  const names = Object.keys(everything) as (keyof Surround)[];
  fc.assert(
    fc.property(fc.subarray(names), fc.nat(), (some, seed) => {
      const surround = Object.fromEntries(some.map((name) => [name, everything[name]]));
      const one = paint(frame, surround, { view, marks });
      expect(paint(other(frame, seed), surround, { view, marks }).data.equals(one.data)).toBe(true);
    }),
    { numRuns: 40 },
  );
});
