import { afterAll, expect, test } from '@jest/globals';
import { createCanvas } from '@napi-rs/canvas';
import { mkdtempSync, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { paintDesk } from '@/core/desk/build';
import { createDesk, deskDisplays } from '@/core/desk/model';
import { paintMark } from '@/core/paint/paintMark';
import { sha256 } from '@/server/frames/intake';
import { plainPng } from '@/server/keep/formats/png';
import { placePart, writePart } from '@/server/keep/write';
import { everyMark } from '@/tests/lib/marks';
import { onChequer, testTools } from '@/tests/lib/painting';
import { median, report, time } from './measure';

const ROUNDS = 11;
const folder = mkdtempSync(join(tmpdir(), 'rezzik-bench-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A marked practice desk, enlarged to the size asked for. */
async function painted(width: number, height: number) {
  const tools = await testTools();
  const { scene } = onChequer(everyMark, { width, height }, tools);
  const { bounds } = deskDisplays[0];
  const surface = createCanvas(width, height).getContext('2d');
  surface.scale(width / bounds.width, height / bounds.height);
  paintDesk(surface, createDesk(1, 0), tools.shaper, bounds);
  for (const mark of everyMark) paintMark(surface, mark, tools, scene);
  return { data: surface.getImageData(0, 0, width, height).data, width, height, opaque: true };
}

test.each([
  [1440, 900],
  [3840, 2160],
])('keep %d × %d as PNG: encode, hash and write against bare sharp', async (width, height) => {
  const pixels = await painted(width, height);
  const raw = Buffer.from(pixels.data.buffer);
  const ratios: number[] = [];
  for (let i = 0; i < ROUNDS; i += 1) {
    const bare = async () => {
      const path = join(folder, `bare-${width}-${i}.png`);
      const took = await time(() =>
        sharp(raw, { raw: { width, height, channels: 4 } })
          .removeAlpha()
          .png({ compressionLevel: 6 })
          .toFile(path),
      );
      // Not timed: what the reference leaves unsynced would be flushed by the next sync, ours.
      const file = await open(path, 'r+');
      await file.sync();
      await file.close();
      return took;
    };
    const ours = () =>
      time(async () => {
        const bytes = await plainPng(pixels);
        sha256(bytes);
        await placePart(await writePart(folder, bytes), join(folder, `ours-${width}-${i}.png`));
      });
    // Turn and turn about, so that neither always runs on the warmer machine.
    const [a, b] = i % 2 ? [await bare(), await ours()] : [await ours(), await bare()].reverse();
    ratios.push((b ?? NaN) / (a ?? NaN));
  }
  report(
    `Keep ${width}×${height} PNG: encode + hash + write / bare sharp`,
    `${median(ratios).toFixed(2)}×`,
    'must be ≤ 1.25×',
  );
  expect(ratios).toHaveLength(ROUNDS);
});
