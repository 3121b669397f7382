import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { allFontFiles, createShaper } from '@/core/drawing/harfbuzz';
import type { Shaper } from '@/core/drawing/shaper';

/** The real shaper over the shipped fonts, for tests that run in Node. */
export async function testShaper(): Promise<Shaper> {
  const files = await Promise.all(
    allFontFiles.map(async (name) => [name, await readFile(join('public/fonts', name))] as const),
  );
  return createShaper(await import('harfbuzzjs'), new Map(files));
}
