import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { ShotDocument } from '@/core/document/document';
import { markSchema } from '@/core/marks/registry';
import { parts, type Surround } from '@/core/finish/surround/surround';
import { untouched } from '@/core/document/view';
import { encodeShot } from '../keep/encode';
import { storeShot } from '../shots/store';
import { getPaintable } from '../shots/rows';
import { begin, finish, gradientPng } from './setup';

/** Marks as shapes of an SVG, drawn by librsvg, beside the same picture as pixels. */

let work: string;
beforeAll(async () => {
  await begin();
  work = mkdtempSync(join(tmpdir(), 'rezzik-shapes-'));
});
afterAll(async () => {
  rmSync(work, { recursive: true, force: true });
  await finish();
});

const SIZE = { width: 200, height: 120 };
/** Levels of 255: edges of shapes are softened a little otherwise. */
const EDGE = 48;

/** A shot as an SVG that librsvg drew, and as a PNG: red, green and blue of each pixel. */
async function drawn(name: string, change: Partial<ShotDocument>) {
  const { id } = await storeShot({
    picture: await gradientPng(SIZE.width, SIZE.height),
    title: 'Beds',
    document: { ...untouched(SIZE), ...change },
    provenance: { source: 'display', takenAt: '2026-11-23T14:02:11Z' },
  });
  const shot = await getPaintable(id);
  const path = join(work, `${name}.svg`);
  writeFileSync(path, (await encodeShot(shot, { format: 'svg' })).bytes);
  const png = execFileSync('rsvg-convert', ['--format=png', path], { maxBuffer: 1 << 26 });
  const colours = (bytes: Uint8Array) => sharp(bytes).removeAlpha().raw().toBuffer();
  return {
    shapes: await colours(png),
    pixels: await colours((await encodeShot(shot, { format: 'png' })).bytes),
    svg: readFileSync(path, 'utf8'),
  };
}

test.each(['felt', 'nib', 'chalk', 'speckle'] as const)(
  'a cut-out with a pen of %s looks the same as shapes and as pixels',
  async (tip) => {
    const points = Array.from({ length: 20 }, (_, i) => [
      20.3 + i * 8,
      60 + 30 * Math.sin(i / 3),
      0.5,
    ]);
    const pen = { id: 'pen', kind: 'pen', tip, points, colour: '#D55E00', thickness: 12 };
    const { shapes, pixels } = await drawn(tip, {
      view: { crop: { x: 33, y: 21, width: 140, height: 90 } },
      marks: [markSchema.parse(pen)],
    });
    expect(shapes.length).toBe(pixels.length);
    const off = shapes.filter((value, i) => Math.abs(value - (pixels[i] ?? 0)) > EDGE);
    expect(off).toHaveLength(0);
  },
);

const box = {
  ...{ id: 'box', kind: 'box', x: 120, y: 20, width: 60, height: 40 },
  ...{ colour: '#D55E00', outline: 4, fill: '#0072B2', fillOpacity: 1 },
};
const blur = { id: 'blur', kind: 'blur', x: 20, y: 20, width: 60, height: 50, strength: 8 };
const closeUp = {
  ...{ id: 'close', kind: 'closeUp', source: { x: 110, y: 10, width: 30, height: 20 } },
  ...{ at: { x: 130, y: 60 }, zoom: 2, colour: '#D55E00' },
};

test.each(['picture', 'all'] as const)(
  'adjusted on %s, it looks the same as shapes and as pixels, and the shapes are shapes',
  async (on) => {
    const adjust = {
      on,
      brightness: 110,
      contrast: 120,
      saturation: 60,
      inverted: 100,
      sharpened: 60,
    };
    const marks = [blur, box, closeUp].map((mark) => markSchema.parse(mark));
    const { shapes, pixels, svg } = await drawn(`adjusted ${on}`, { marks, finish: { adjust } });
    const by = shapes.map((value, i) => Math.abs(value - (pixels[i] ?? 0)));
    // Inverted, the ground differs more from what lies on it, and so do soft edges.
    expect(by.filter((levels) => levels > 1.5 * EDGE)).toHaveLength(0);
    expect(by.reduce((sum, levels) => sum + levels, 0) / by.length).toBeLessThan(1);
    expect(svg).toContain('<title>Box</title>');
    expect(svg.includes('<filter ')).toBe(on === 'all');
  },
);

const border = { ...parts.border.first, corners: 18 };
const background = { colours: ['#DCE9E2', '#446655'], run: 'slant' as const, room: 20 };
const surrounds: [string, Surround, boolean][] = [
  ['a border with round corners', { border }, true],
  ['a shadow', { shadow: parts.shadow.first, background }, true],
  ['a torn edge', { ragged: parts.ragged.first, background }, true],
  ['columns', { fold: parts.fold.first, border: parts.border.first, background }, true],
  ['a caption', { caption: { ...parts.caption.first, text: 'Reed bed <4>' } }, true],
  ['words all over', { watermark: { ...parts.watermark.first, tiled: true, size: 20 } }, true],
  // No shape is seen in perspective.
  [
    'a tilt',
    { tilt: { across: 20, up: 5 }, border, background, shadow: parts.shadow.first },
    false,
  ],
];

test.each(surrounds)(
  'with %s around it, it looks the same as shapes and as pixels',
  async (name, surround, isShapes) => {
    const marks = [blur, box].map((mark) => markSchema.parse(mark));
    // On a colour: two makers' transparent pixels have colours of their own.
    const opaque = { background: { ...background, room: 0 }, ...surround };
    const { shapes, pixels, svg } = await drawn(name, { marks, finish: { surround: opaque } });
    expect(shapes.length).toBe(pixels.length);
    const by = shapes.map((value, i) => Math.abs(value - (pixels[i] ?? 0)));
    expect(by.reduce((sum, levels) => sum + levels, 0) / by.length).toBeLessThan(1);
    // A few pixels of an edge where it is cut may be softer.
    expect(by.filter((levels) => levels > 1.5 * EDGE).length / by.length).toBeLessThan(0.002);
    expect(svg.includes('<title>Box</title>')).toBe(isShapes);
    if (surround.caption) expect(svg).toContain('Reed bed &lt;4&gt;</tspan>');
  },
);
