import { randomUUID } from 'node:crypto';
import { constants } from 'node:fs';
import { open, unlink } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { limits } from '@/core/values/limits';
import { pictureType } from '../frames/kind';
import { decoded } from '../paint/flatten';
import { holding } from '../pool/pool';
import { unavailable } from './connection';
import type { ScreenPixels } from './pixmap';
import type { Still } from './still';
import { Fault } from '../base/fault';
import { askPortal } from '../bus/request';
import { personActs } from '../words/quiet';

/** A person may be asked first, and may think about it, ms. */
const PATIENCE = 60_000;

export const NO_WINDOWS =
  'This desktop tells no program which windows there are. Take a region or a part of the screen.';

/**
 * The screens as they are now, through the desktop's own portal: one picture of all of them, without
 * a list of windows. The file that the desktop makes for it is removed again.
 * @param patience how long a person may take to allow it, ms
 * @throws Fault 403 when a person does not allow it, 503
 */
export async function portalStill(patience = PATIENCE): Promise<Still> {
  personActs();
  const asked = Date.now();
  const answer = await askPortal(
    'org.freedesktop.portal.Screenshot',
    'Screenshot',
    [
      ['modal', ['b', false]],
      ['interactive', ['b', false]],
    ],
    patience,
  ).catch((error: unknown) => {
    const words = error instanceof Error ? error.message : String(error);
    throw unavailable(`The desktop gave no picture of its screens. (${words})`);
  });
  if (answer.state === 'refused') {
    throw new Fault(403, 'not-allowed', 'The desktop was told not to give a picture to Rezzik.');
  }
  if (answer.state !== 'done') throw unavailable('The desktop gave no picture of its screens.');
  const takenAt = new Date().toISOString();
  const { data, width, height } = await pixelsAt(answer.results.get('uri'), asked);
  const screen = { name: 'Screen', x: 0, y: 0, width, height, primary: true };
  const none = () => Promise.reject(unavailable(NO_WINDOWS));
  return {
    ...{ id: randomUUID(), takenAt, width, height, monitors: [screen] },
    ...{ windows: [], noWindowList: true, focused: null, pointer: null, own: [], covered: [] },
    pixels: () => Promise.resolve({ data, width, height }),
    withOwn: none,
    alone: none,
    letGo: () => undefined,
  };
}

async function pixelsAt(address: unknown, since: number): Promise<ScreenPixels> {
  const bytes = await takeFile(address, since).catch((error: unknown) => {
    const words = error instanceof Error ? error.message : String(error);
    throw unavailable(`The picture that the desktop made could not be read. (${words})`);
  });
  // As with everything that arrives, no decoder sees what is none of its kinds.
  if (!pictureType(bytes)) throw noPicture();
  try {
    const image = sharp(bytes, { limitInputPixels: limits.pixels });
    const { width, height } = await image.metadata();
    const { data, ...size } = await holding(width * height, () => decoded(image));
    return { data: new Uint8ClampedArray(data), ...size };
  } catch {
    throw noPicture();
  }
}

const noPicture = () => unavailable('What the desktop made is no picture.');

/** Reads the file at an address, and removes it where it was made for this asking. */
async function takeFile(address: unknown, since: number): Promise<Buffer> {
  if (typeof address !== 'string') throw new Error('It has no address.');
  const path = fileURLToPath(address);
  const file = await open(path, constants.O_RDONLY | constants.O_NOFOLLOW);
  try {
    const facts = await file.stat();
    if (!facts.isFile() || facts.size > limits.pictureBytes)
      throw new Error('It is no file of a picture.');
    const bytes = await file.readFile();
    // Clocks of file systems are a little coarse.
    const isOurs = facts.uid === process.getuid?.() && facts.mtimeMs > since - 1_000;
    if (isOurs) await unlink(path).catch(() => undefined);
    return bytes;
  } finally {
    await file.close();
  }
}
