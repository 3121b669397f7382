import { clicksSeen, keysSeen, type Pressed } from '../clip/pressed';
import { firstMarkColour } from '../colour/markColours';
import { bottom } from '../geometry/rect';
import { markSchema, type Mark } from '../marks/registry';
import { limits } from '../values/limits';
import type { ShotDocument } from './document';
import { followedBy } from './follow';

const INK = '#1C2B2A';
const LIGHT = '#FFFFFF';
/** Of the height of what is shown: half a ring, and letters. */
const RADIUS = 1 / 40;
const LETTERS = 1 / 32;

const within = (value: number, least: number, most: number): number =>
  Math.round(Math.min(most, Math.max(least, value)));

/**
 * Marks that show what a hand did while a clip was recorded: a ring where it clicked, and the keys
 * it pressed in a corner. They are marks like all others.
 * @param times of the pictures, s, ascending
 * @param view what of the pictures is shown, and what that follows: on it, marks lie where it lay at first
 */
export function pressedMarks(
  pressed: readonly Pressed[],
  times: readonly number[],
  { crop: seen, follow }: Pick<ShotDocument['view'], 'crop' | 'follow'>,
): Mark[] {
  const radius = within(seen.height * RADIUS, 10, 60);
  const rings = clicksSeen(pressed, times).map(({ x, y, time }, i) => {
    const by = followedBy(follow, time.from);
    return {
      ...{ id: `click-${i + 1}`, name: 'Click', kind: 'oval', time },
      ...{ x: x - by.x - radius, y: y - by.y - radius, width: 2 * radius, height: 2 * radius },
      ...{ colour: firstMarkColour, outline: within(radius / 4, 3, 12) },
    };
  });
  const textSize = within(seen.height * LETTERS, 14, 60);
  const words = keysSeen(pressed, times).map(({ text, time }, i) => ({
    ...{ id: `keys-${i + 1}`, name: `Keys: ${text}`, kind: 'text', time },
    ...{ text, textSize, bold: true },
    ...{ x: seen.x + textSize, y: bottom(seen) - 2.5 * textSize },
    ...{ width: Math.max(8, seen.width - 2 * textSize), colour: LIGHT, plate: INK },
  }));
  return markSchema
    .array()
    .parse([...rings, ...words])
    .slice(0, limits.marks);
}
