// Unpacks the font files of the @fontsource packages into public/fonts, where HarfBuzz (in the
// browser, in workers and on the server) reads them. Run once when a font package changes, with
// the packages below at hand (npm install --no-save); its results are committed.
import { copyFile, mkdir, readFile, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { inflateSync } from 'node:zlib';

const top = join(dirname(fileURLToPath(import.meta.url)), '..');

/** Package, name of its files, subsets and weights. */
const fonts = [
  ['atkinson-hyperlegible-next', 'atkinson-hyperlegible-next', ['latin', 'latin-ext'], [400, 700]],
  ['ibm-plex-mono', 'ibm-plex-mono', ['latin'], [400, 600]],
  ['bricolage-grotesque', 'bricolage-grotesque', ['latin', 'latin-ext'], [400, 700]],
  ['kalam', 'kalam', ['latin', 'latin-ext'], [400, 700]],
  ['noto-sans', 'noto-sans', ['vietnamese', 'cyrillic', 'greek'], [400, 700]],
  ['noto-sans', 'noto-sans', ['devanagari'], [400]],
  ['noto-sans-hebrew', 'noto-sans-hebrew', ['hebrew'], [400, 700]],
  ['noto-sans-thai', 'noto-sans-thai', ['thai'], [400, 700]],
  ['noto-sans-arabic', 'noto-sans-arabic', ['arabic'], [400]],
  ['noto-sans-symbols', 'noto-sans-symbols', ['symbols'], [400]],
];

/** Takes a WOFF 1.0 file (W3C) apart into the tables of an OpenType file. */
function unpack(woff) {
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i;
    const [offset, packed, length] = [4, 8, 12].map((by) => woff.readUInt32BE(at + by));
    const bytes = woff.subarray(offset, offset + packed);
    return {
      tag: woff.subarray(at, at + 4),
      checksum: woff.subarray(at + 16, at + 20),
      bytes: packed < length ? inflateSync(bytes) : bytes,
    };
  }).sort((a, b) => Buffer.compare(a.tag, b.tag));
  const power = 2 ** Math.floor(Math.log2(count));
  const header = Buffer.alloc(12);
  woff.copy(header, 0, 4, 8);
  [count, power * 16, Math.log2(power), (count - power) * 16].forEach((value, i) =>
    header.writeUInt16BE(value, 4 + 2 * i),
  );
  let offset = 12 + 16 * count;
  const directory = [];
  const body = [];
  for (const { tag, checksum, bytes } of tables) {
    const place = Buffer.alloc(8);
    place.writeUInt32BE(offset, 0);
    place.writeUInt32BE(bytes.length, 4);
    directory.push(tag, checksum, place);
    const padding = Buffer.alloc((4 - (bytes.length % 4)) % 4);
    body.push(bytes, padding);
    offset += bytes.length + padding.length;
  }
  return Buffer.concat([header, ...directory, ...body]);
}

await mkdir(join(top, 'public/fonts'), { recursive: true });
for (const [name, file, subsets, weights] of fonts) {
  const folder = join(top, 'node_modules/@fontsource', name);
  for (const subset of subsets) {
    for (const weight of weights) {
      const font = `${file}-${subset}-${weight}-normal`;
      const woff = await readFile(join(folder, 'files', `${font}.woff`));
      await writeFile(join(top, 'public/fonts', `${font}.ttf`), unpack(woff));
    }
  }
  await copyFile(join(folder, 'LICENSE'), join(top, 'public/fonts', `${name}.LICENSE`));
}
