import { snapDirection } from '@/core/geometry/point';
import { update } from '../session/session';
import type { Gesture, Press } from './contract';
import { round } from './draw';

/** Measures from where it is pressed; the numbers stay until the next. */
export function measuring({ at: pressed }: Press): Gesture {
  const start = round(pressed);
  update({ measured: null });
  return {
    move: ({ at, keep }) =>
      update({ measured: [start, keep ? snapDirection(start, at, 15) : round(at)] }),
  };
}
