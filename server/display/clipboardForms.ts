import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { env } from '../base/env';
import { pngAs } from '../keep/encode';
import { writeWhole } from '../keep/write';

/** The file that stands for the picture where a program wants one; of its owner alone. */
const folder = (): string => join(env().dataDir, 'clipboard');

/** What a program can ask the picture on the clipboard for as, and how that is made of its PNG. */
export const clipboardForms = {
  'image/png': (png: Buffer) => Promise.resolve(png),
  'image/bmp': async (png: Buffer) => Buffer.from(await pngAs('bmp', png)),
  'text/html': (png: Buffer) =>
    Promise.resolve(Buffer.from(`<img alt="" src="data:image/png;base64,${base64(png)}">`)),
  'text/uri-list': async (png: Buffer) => Buffer.from(`${await fileOf(png)}\r\n`),
};

const base64 = (png: Buffer): string => png.toString('base64');

/** Named by the moment alone: what a window is called does not leave by the clipboard. */
async function fileOf(png: Buffer): Promise<string> {
  await forgetFile();
  await mkdir(folder(), { recursive: true, mode: 0o700 });
  const path = join(folder(), `Shot ${new Date().toISOString().replace(/[:.]/g, '-')}.png`);
  await writeWhole(path, png);
  return pathToFileURL(path).href;
}

/** The file of a picture is removed, if one was made. */
export const forgetFile = (): Promise<void> => rm(folder(), { recursive: true, force: true });
