import { shared } from '../base/shared';
import { takeIn, type Frame } from '../frames/intake';
import { partPath } from '../media/files';
import { pictureOf } from '../media/pictures';
import { headOf, type Head } from '../media/probe';
import { wrapAlong } from './wrapAlong';
import { soundOf } from './wrappings';

/** What is known of a recording from its first pieces on. */
interface First {
  head: Promise<Head>;
  /** Its first picture. */
  frame: Promise<Frame>;
}

const held = shared('firstPictures', () => new Map<string, First>());

function read(shot: string, signal?: AbortSignal): First {
  const path = partPath(shot);
  const head = headOf(path, signal);
  const frame = pictureOf({ path, times: [0] }, 0, signal).then((png) => takeIn(png));
  // Whoever needs them hears of it.
  head.catch(() => undefined);
  frame.catch(() => undefined);
  return { head, frame };
}

/**
 * Reads it while more is recorded, so that nobody waits for it in the end.
 * @param soundDelay its sound comes so much too late, ms
 */
export function readAhead(shot: string, soundDelay: number): void {
  if (held.has(shot)) return;
  const first = read(shot);
  held.set(shot, first);
  // Too little had come for that; it is read again in the end.
  Promise.all([first.head, first.frame]).then(
    ([{ pictures, sound, shows }]) =>
      shows && wrapAlong(shot, pictures, soundOf(sound, soundDelay)),
    () => held.delete(shot),
  );
}

export const firstOf = (shot: string, signal: AbortSignal): First =>
  held.get(shot) ?? read(shot, signal);

export const forgetFirst = (shot: string): void => void held.delete(shot);
