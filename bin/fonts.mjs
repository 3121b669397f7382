// Unpacks the font files of the @fontsource packages into public/fonts, where
// HarfBuzz (in the browser, in workers and on the server) reads them.
// Run once when a font package changes; its results are committed.
import { readFile, writeFile, mkdir } from 'node:fs/promises';
import { join, dirname } from 'node:path';
import { fileURLToPath } from 'node:url';

const top = join(dirname(fileURLToPath(import.meta.url)), '..');

const files = [
  ['atkinson-hyperlegible-next', 'latin-400-normal'],
  ['atkinson-hyperlegible-next', 'latin-ext-400-normal'],
  ['atkinson-hyperlegible-next', 'latin-700-normal'],
  ['atkinson-hyperlegible-next', 'latin-ext-700-normal'],
  ['ibm-plex-mono', 'latin-400-normal'],
  ['ibm-plex-mono', 'latin-600-normal'],
];

const { default: wawoff2 } = await import('wawoff2');
await mkdir(join(top, 'public/fonts'), { recursive: true });
for (const [family, face] of files) {
  const folder = join(top, 'node_modules/@fontsource', family);
  const packed = await readFile(join(folder, 'files', `${family}-${face}.woff2`));
  const unpacked = await wawoff2.decompress(packed);
  await writeFile(join(top, 'public/fonts', `${family}-${face}.ttf`), unpacked);
  await writeFile(
    join(top, 'public/fonts', `${family}.LICENSE`),
    await readFile(join(folder, 'LICENSE')),
  );
  console.log(`${family}-${face}.ttf  ${unpacked.length} bytes`);
}
