import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { markSchema } from '@/core/marks/registry';
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

test.each(['felt', 'nib', 'chalk', 'speckle'] as const)(
  'a cut-out with a pen of %s looks the same as shapes and as pixels',
  async (tip) => {
    const points = Array.from({ length: 20 }, (_, i) => [
      20.3 + i * 8,
      60 + 30 * Math.sin(i / 3),
      0.5,
    ]);
    const pen = { id: 'pen', kind: 'pen', tip, points, colour: '#D55E00', thickness: 12 };
    const { id } = await storeShot({
      picture: await gradientPng(SIZE.width, SIZE.height),
      title: 'Beds',
      document: {
        ...untouched(SIZE),
        view: { crop: { x: 33, y: 21, width: 140, height: 90 } },
        marks: [markSchema.parse(pen)],
      },
      provenance: { source: 'display', takenAt: '2026-11-23T14:02:11Z' },
    });
    const shot = await getPaintable(id);
    const path = join(work, `${tip}.svg`);
    writeFileSync(path, (await encodeShot(shot, { format: 'svg' })).bytes);
    const drawn = execFileSync('rsvg-convert', ['--format=png', path], { maxBuffer: 1 << 26 });
    const colours = (bytes: Uint8Array) => sharp(bytes).removeAlpha().raw().toBuffer();
    const [shapes, pixels] = [
      await colours(drawn),
      await colours((await encodeShot(shot, { format: 'png' })).bytes),
    ];
    expect(shapes.length).toBe(pixels.length);
    const off = shapes.filter((value, i) => Math.abs(value - (pixels[i] ?? 0)) > EDGE);
    expect(off).toHaveLength(0);
  },
);
