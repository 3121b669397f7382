import { z } from 'zod';
import { homography, type Quad } from '../../geometry/homography';
import { inverse, multiply, translation, type Matrix } from '../../geometry/matrix';
import { boundsOf } from '../../geometry/rect';
import type { Size } from '../../geometry/size';
import type { Point } from '../../geometry/point';
import type { Part } from './contract';

const degrees = z.int().min(-60).max(60);
const schema = z.strictObject({
  /** Degrees about the upright axis: more than 0 takes the right side away from who looks. */
  across: degrees,
  /** Degrees about the level axis: more than 0 takes the top away. */
  up: degrees,
});
export type Tilt = z.infer<typeof schema>;

export const tilt: Part<typeof schema> = {
  label: 'Tilt',
  schema,
  first: { across: 20, up: 0 },
};

/** How far away the eye is, in longest sides of what is tilted. */
const EYE = 2;

const fine = (v: number): number => Math.round(v * 1024) / 1024;

export interface Tilted {
  size: Size;
  /** Takes a place of the card to where it is seen. */
  to: Matrix;
  /** The way back. */
  from: Matrix;
}

/**
 * A card turned in space about its middle, first about the upright axis, then about the level one,
 * as it is seen from in front by perspective (central projection; J. Foley et al., Computer
 * Graphics, ch. 6). What is seen begins at 0, 0.
 */
export function tilted(card: Size, { across, up }: Tilt): Tilted {
  const eye = EYE * Math.max(card.width, card.height);
  const [a, b] = [(across * Math.PI) / 180, (up * Math.PI) / 180];
  const seen = (x: number, y: number): Point => {
    const [px, z] = [x * Math.cos(a), x * Math.sin(a)];
    const py = y * Math.cos(b) + z * Math.sin(b);
    const depth = z * Math.cos(b) - y * Math.sin(b);
    const by = eye / (eye + depth);
    // Engines differ in the last digits of a sine.
    return { x: fine(px * by), y: fine(py * by) };
  };
  const [w, h] = [card.width / 2, card.height / 2];
  const quad: Quad = [seen(-w, -h), seen(w, -h), seen(w, h), seen(-w, h)];
  const { x, y, width, height } = boundsOf(quad);
  const corners: Quad = [
    { x: 0, y: 0 },
    { x: card.width, y: 0 },
    { x: card.width, y: card.height },
    { x: 0, y: card.height },
  ];
  const to = multiply(translation(-x, -y), homography(corners, quad));
  const tidy = (v: number) => Math.max(1, Math.ceil(v - 1e-6));
  return { size: { width: tidy(width), height: tidy(height) }, to, from: inverse(to) };
}
