import { z } from 'zod';
import type { Adjustment } from './contract';
import * as list from './list';

export type AdjustmentName = keyof typeof list;

/** In this order they are done, whatever order they were set in. */
export const order = [
  'brightness',
  'contrast',
  'saturation',
  'grey',
  'inverted',
  'sharpened',
] as const satisfies readonly AdjustmentName[];

export const adjustments: Readonly<Record<AdjustmentName, Adjustment>> = list;

const percent = ({ most }: Adjustment) => z.int().min(0).max(most).optional();

/** How a picture is adjusted, in whole percent; what is not said changes nothing. */
export const adjustSchema = z.strictObject({
  /** The picture under the marks, or all that leaves. */
  on: z.enum(['picture', 'all']),
  brightness: percent(list.brightness),
  contrast: percent(list.contrast),
  saturation: percent(list.saturation),
  grey: percent(list.grey),
  inverted: percent(list.inverted),
  sharpened: percent(list.sharpened),
});
export type Adjust = z.infer<typeof adjustSchema>;

export const amountOf = (adjust: Adjust | undefined, name: AdjustmentName): number =>
  adjust?.[name] ?? adjustments[name].none;

/** Those that change something, in the order in which they are done. */
export const activeIn = (adjust: Adjust | undefined): AdjustmentName[] =>
  order.filter((name) => amountOf(adjust, name) !== adjustments[name].none);

/** With another amount of one; nothing where none is left that changes anything. */
export function withAmount(
  adjust: Adjust | undefined,
  name: AdjustmentName,
  amount: number,
): Adjust | undefined {
  const { on = 'picture' } = adjust ?? {};
  const amounts = order.flatMap((one) => {
    const value = one === name ? amount : amountOf(adjust, one);
    return value === adjustments[one].none ? [] : [[one, value] as const];
  });
  return amounts.length ? { on, ...Object.fromEntries(amounts) } : undefined;
}

/** As a filter of the browser, for looking at it while it changes; empty for what changes nothing. */
export const filterOf = (adjust: Adjust | undefined): string =>
  activeIn(adjust)
    .flatMap((name) => adjustments[name].filter?.(amountOf(adjust, name)) ?? [])
    .join(' ');
