// Reads the words of a picture, given on the standard input, with the recogniser that ships with
// Rezzik, and writes them with their boxes as JSON. A process of its own, behind all other work, so
// that it can be held up and ended at any moment.

import { setPriority } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createWorker } from 'tesseract.js';

setPriority(19);
const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const root = dirname(dirname(fileURLToPath(import.meta.url)));
const worker = await createWorker('eng', 1, {
  langPath: join(root, 'node_modules', '@tesseract.js-data', 'eng', '4.0.0_best_int'),
  gzip: true,
  cacheMethod: 'none',
});
const { data } = await worker.recognize(Buffer.concat(chunks), {}, { blocks: true });
const word = ({ text, bbox }) => ({ text, bbox });
const blocks = (data.blocks ?? []).map(({ paragraphs }) => ({
  paragraphs: paragraphs.map(({ lines }) => ({
    lines: lines.map(({ words }) => ({ words: words.map(word) })),
  })),
}));
process.stdout.write(JSON.stringify(blocks));
await worker.terminate();
