import type { ShotDocument } from './document';
import { hidesLeaving } from '../marks/registry';
import type { Stretch } from '../values/stretch';
import { secondsOf, tidied } from '../clip/cuts';

/**
 * When something is hidden on a film, by the numbers of its pictures, in order and apart from each
 * other: what is said meanwhile may tell it.
 * @param count how many pictures it has
 */
export const hiddenStretches = ({ marks }: ShotDocument, count: number): Stretch[] =>
  tidied(
    marks.filter(hidesLeaving).map(({ time }) => time ?? { from: 0, to: count }),
    count,
  );

/**
 * So much sooner it falls silent, and so much later it is heard again, seconds: whatever packed the
 * sound smeared it a little, more into what comes after.
 */
const BEFORE = 0.05;
const AFTER = 0.2;

/** When nothing is heard of a film, seconds. @param times when each picture comes */
export const silentSeconds = (document: ShotDocument, times: readonly number[]): Stretch[] =>
  hiddenStretches(document, times.length)
    .map((stretch) => secondsOf(stretch, times))
    .map(({ from, to }) => ({ from: Math.max(0, from - BEFORE), to: to + AFTER }));
