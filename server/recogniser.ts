import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { notFound } from './base/fault';

const core = (build: string): string =>
  join('tesseract.js-core', `tesseract-core-${build}.wasm.js`);

/** What may be asked for, and where the packages have it; nothing else is ever read. */
const files: Record<string, { path: string; type: string }> = {
  'worker.min.js': { path: join('tesseract.js', 'dist', 'worker.min.js'), type: 'text/javascript' },
  'eng.traineddata.gz': {
    path: join('@tesseract.js-data', 'eng', '4.0.0_best_int', 'eng.traineddata.gz'),
    type: 'application/gzip',
  },
  ...Object.fromEntries(
    ['lstm', 'simd-lstm', 'relaxedsimd-lstm'].map((build) => [
      `tesseract-core-${build}.wasm.js`,
      { path: core(build), type: 'text/javascript' },
    ]),
  ),
};

/** A file of the text recogniser, which ships with the app. @throws Fault 404 */
export async function recogniserFile(name: string): Promise<{ bytes: Uint8Array; type: string }> {
  const file = Object.hasOwn(files, name) ? files[name] : undefined;
  if (!file) throw notFound('file');
  const bytes = await readFile(join(process.cwd(), 'node_modules', file.path));
  return { bytes, type: file.type };
}
