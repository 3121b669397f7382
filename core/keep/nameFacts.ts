import type { Size } from '../geometry/size';
import type { Shot } from '../contracts/shot';
import type { NameFacts } from '../naming/pattern';

/** What the name of a shot's file is made from, in a size and under a number. */
export const nameFactsOf = (
  { title, provenance }: Pick<Shot, 'title' | 'provenance'>,
  { width, height }: Size,
  number: number,
  timeZone: string,
): NameFacts => ({
  title,
  window: provenance.windowTitle ?? '',
  takenAt: provenance.takenAt,
  timeZone,
  width,
  height,
  number,
});
