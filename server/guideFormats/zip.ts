import { ZipFile } from 'yazl';
import type { GuideBytes } from './contract';

/**
 * Files as one zip (APPNOTE 6.3), in their order.
 * @param stored those that are put in as they are
 */
export async function zipped(
  files: readonly GuideBytes[],
  at: Date,
  stored: (path: string) => boolean = (path) => path.endsWith('.png'),
): Promise<Uint8Array> {
  const zip = new ZipFile();
  for (const { path, bytes } of files) {
    const name = path.join('/');
    zip.addBuffer(Buffer.from(bytes), name, { mtime: at, compress: !stored(name) });
  }
  zip.end();
  const parts: Buffer[] = [];
  for await (const part of zip.outputStream) parts.push(Buffer.from(part));
  return Buffer.concat(parts);
}
