import type { StampName } from './names';

/**
 * Our own drawings on a square of 24: `disc` and `plate` are the ground in the stamp's colour, what
 * follows is drawn on it in what can be read there; without a ground it is drawn in the colour.
 * Paths are lines through points; `round` is an oval x, y, width, height.
 */
export interface Drawing {
  ground?: 'disc' | 'triangle' | 'shape';
  /** Closed outlines that make the ground of kind `shape`. */
  shape?: readonly (readonly number[])[];
  lines?: readonly (readonly number[])[];
  filled?: readonly (readonly number[])[];
  rounds?: readonly (readonly [number, number, number, number])[];
  dots?: readonly (readonly [number, number, number])[];
  /** Quarter turns clockwise of another drawing. */
  turned?: { of: StampName; quarters: number };
}

const star = Array.from({ length: 10 }, (_, i) => {
  const r = i % 2 ? 4.6 : 11;
  const angle = (i * Math.PI) / 5 - Math.PI / 2;
  return [12 + r * Math.cos(angle), 12.8 + r * Math.sin(angle)];
}).flat();

const heart = Array.from({ length: 40 }, (_, i) => {
  // The well-known curve x = 16 sin³t, y = 13 cos t − 5 cos 2t − 2 cos 3t − cos 4t.
  const t = (i / 40) * 2 * Math.PI;
  const x = 16 * Math.sin(t) ** 3;
  const y = 13 * Math.cos(t) - 5 * Math.cos(2 * t) - 2 * Math.cos(3 * t) - Math.cos(4 * t);
  return [12 + x * 0.62, 11.4 - y * 0.62];
}).flat();

export const drawings: Record<Exclude<StampName, 'key'>, Drawing> = {
  tick: { ground: 'disc', lines: [[6.6, 12.6, 10.4, 16.4, 17.6, 8.2]] },
  cross: {
    ground: 'disc',
    lines: [
      [7.6, 7.6, 16.4, 16.4],
      [16.4, 7.6, 7.6, 16.4],
    ],
  },
  warning: { ground: 'triangle', lines: [[12, 9, 12, 14.4]], dots: [[12, 18, 1.3]] },
  question: {
    ground: 'disc',
    lines: [
      [8.8, 9.4, 9.4, 7.4, 11, 6.3, 13, 6.3, 14.8, 7.4, 15.3, 9.2, 14.4, 11, 12, 12.6, 12, 14.4],
    ],
    dots: [[12, 17.6, 1.3]],
  },
  info: { ground: 'disc', lines: [[12, 11, 12, 17.4]], dots: [[12, 7, 1.4]] },
  important: { ground: 'disc', lines: [[12, 6, 12, 13.6]], dots: [[12, 17.4, 1.4]] },
  arrowUp: {
    ground: 'shape',
    shape: [[12, 1.5, 21, 11.5, 15.5, 11.5, 15.5, 22.5, 8.5, 22.5, 8.5, 11.5, 3, 11.5]],
  },
  arrowRight: { turned: { of: 'arrowUp', quarters: 1 } },
  arrowDown: { turned: { of: 'arrowUp', quarters: 2 } },
  arrowLeft: { turned: { of: 'arrowUp', quarters: 3 } },
  fingerUp: {
    ground: 'shape',
    shape: [
      [
        10.2, 2.6, 11.2, 1.6, 12.4, 1.6, 13.4, 2.6, 13.4, 10, 15.2, 9.6, 16.4, 10.6, 18, 10.4, 19,
        11.6, 20.2, 11.8, 20.8, 13, 20.4, 18, 18.6, 22.4, 10.4, 22.4, 8.6, 19.4, 5, 16, 4.6, 14.4,
        5.8, 13.4, 7.4, 13.6, 10.2, 15.6,
      ],
    ],
    lines: [
      [16.4, 10.8, 16.4, 13.6],
      [19, 11.8, 18.8, 14],
      [13.4, 10, 13.4, 13.4],
    ],
  },
  fingerRight: { turned: { of: 'fingerUp', quarters: 1 } },
  fingerDown: { turned: { of: 'fingerUp', quarters: 2 } },
  fingerLeft: { turned: { of: 'fingerUp', quarters: 3 } },
  star: { ground: 'shape', shape: [star] },
  heart: { ground: 'shape', shape: [heart] },
  flag: {
    ground: 'shape',
    shape: [[5, 2, 7, 2, 7, 3, 20, 3, 16.4, 8, 20, 13, 7, 13, 7, 22.4, 5, 22.4]],
  },
  pin: {
    ground: 'shape',
    shape: [
      [
        12, 22.6, 5.6, 13.2, 4.6, 9.4, 5.6, 5.6, 8.2, 2.8, 12, 1.6, 15.8, 2.8, 18.4, 5.6, 19.4, 9.4,
        18.4, 13.2,
      ],
    ],
    dots: [[12, 9.2, 2.8]],
  },
  target: {
    rounds: [
      [3.5, 3.5, 17, 17],
      [8, 8, 8, 8],
    ],
    lines: [
      [12, 1, 12, 6],
      [12, 18, 12, 23],
      [1, 12, 6, 12],
      [18, 12, 23, 12],
    ],
  },
  plus: {
    ground: 'disc',
    lines: [
      [12, 6.4, 12, 17.6],
      [6.4, 12, 17.6, 12],
    ],
  },
  minus: { ground: 'disc', lines: [[6.4, 12, 17.6, 12]] },
  stop: { rounds: [[3, 3, 18, 18]], lines: [[5.7, 5.7, 18.3, 18.3]] },
  lock: {
    ground: 'shape',
    shape: [
      [4.5, 10.5, 19.5, 10.5, 19.5, 22, 4.5, 22],
      [
        7, 10.5, 7, 7, 8.5, 3.5, 12, 2, 15.5, 3.5, 17, 7, 17, 10.5, 14.6, 10.5, 14.6, 7.4, 13.6, 5,
        12, 4.4, 10.4, 5, 9.4, 7.4, 9.4, 10.5,
      ],
    ],
    lines: [[12, 14.6, 12, 18.2]],
  },
  clock: { ground: 'disc', lines: [[12, 5.8, 12, 12, 16.4, 14.6]] },
  bolt: {
    ground: 'shape',
    shape: [[13.6, 1.4, 4.6, 13.6, 11, 13.6, 9.4, 22.6, 19.4, 9.4, 12.8, 9.4]],
  },
  eye: { rounds: [[1.6, 5.6, 20.8, 12.8]], dots: [[12, 12, 3.6]] },
  magnifier: { rounds: [[3, 3, 13, 13]], lines: [[14.4, 14.4, 21, 21]] },
};
