import { z } from 'zod';
import { limits } from './limits';

export const coordinate = z.number().min(-limits.coordinate).max(limits.coordinate);
export const extent = z.number().min(0).max(limits.coordinate);
/** The least and the most that a number may be. */
type Bounds = readonly [number, number];
const anywhere: Bounds = [-limits.coordinate, limits.coordinate];

const isRow = (row: unknown, bounds: readonly Bounds[]): boolean =>
  Array.isArray(row) &&
  row.length === bounds.length &&
  bounds.every(([least, most], i) => {
    const value: unknown = row[i];
    return typeof value === 'number' && value >= least && value <= most;
  });

/** Rows of numbers, looked at in one go: one by one, a long stroke would hold all else up. */
const rows = <T extends readonly number[]>(
  bounds: readonly Bounds[],
  words: string,
  least: number,
  most: number,
) =>
  z.custom<T[]>(
    (all) =>
      Array.isArray(all) &&
      all.length >= least &&
      all.length <= most &&
      all.every((row) => isRow(row, bounds)),
    `must be ${least} to ${most} points, each ${words}`,
  );

const place = `x, y within ${limits.coordinate}`;

/** Points as [x, y]. */
export const pathOf = (least: number, most: number) =>
  rows<[number, number]>([anywhere, anywhere], place, least, most);

/** Points as [x, y, pressure 0–1]. */
export const strokeOf = (least: number, most: number) =>
  rows<[number, number, number]>(
    [anywhere, anywhere, [0, 1]],
    `${place} and pressure from 0 to 1`,
    least,
    most,
  );

export const pointSchema = z.strictObject({ x: coordinate, y: coordinate });
/** A rectangle of whole pixels with at least one pixel in it. */
export const pixelRectSchema = z.strictObject({
  x: z.int().min(0).max(limits.coordinate),
  y: z.int().min(0).max(limits.coordinate),
  width: z.int().min(1).max(limits.coordinate),
  height: z.int().min(1).max(limits.coordinate),
});
export const colour = z
  .string()
  .regex(/^#[0-9a-fA-F]{6}$/, 'must be a colour as #RRGGBB')
  .transform((value) => value.toUpperCase());
export const thickness = z.number().min(1).max(60);
export const opacity = z.number().min(0.05).max(1);
