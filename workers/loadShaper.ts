import { allFontFiles, createShaper, fontsVersion } from '@/core/drawing/harfbuzz';
import type { Shaper } from '@/core/drawing/shaper';

let loading: Promise<Shaper> | null = null;

/** The shaper over the font files this Rezzik serves; loaded once per thread, again after a failure. */
export function loadShaper(): Promise<Shaper> {
  loading ??= load().catch((error: unknown) => {
    loading = null;
    throw error;
  });
  return loading;
}

async function load(): Promise<Shaper> {
  const [harfbuzz, ...files] = await Promise.all([
    import('harfbuzzjs'),
    ...allFontFiles.map(async (name) => {
      const answer = await fetch(`/fonts/${name}?v=${fontsVersion}`);
      if (!answer.ok) throw new Error(`The font ${name} could not be loaded.`);
      return [name, new Uint8Array(await answer.arrayBuffer())] as const;
    }),
  ]);
  return createShaper(harfbuzz, new Map(files));
}
