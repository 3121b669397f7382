import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { allFontFiles, createShaper } from '@/core/drawing/harfbuzz';
import type { Shaper } from '@/core/drawing/shaper';

let loading: Promise<Shaper> | null = null;

/** The shaper over the shipped font files, loaded once. */
export function serverShaper(): Promise<Shaper> {
  loading ??= load();
  return loading;
}

async function load(): Promise<Shaper> {
  const folder = join(process.cwd(), 'public', 'fonts');
  const files = await Promise.all(
    allFontFiles.map(async (name) => [name, await readFile(join(folder, name))] as const),
  );
  return createShaper(await import('harfbuzzjs'), new Map(files));
}
