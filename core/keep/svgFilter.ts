import {
  activeIn,
  adjustments,
  amountOf,
  type Adjust,
  type AdjustmentName,
} from '../finish/adjust/adjust';
import type { Size } from '../geometry/size';

/** Hundred-thousandths are finer than what eight bits tell apart. */
const n = (value: number): string => String(Math.round(value * 100_000) / 100_000);

/** An adjustment as the primitives it is made of (W3C, Filter Effects Module Level 1, § 9). */
function primitive(adjust: Adjust, name: AdjustmentName): string {
  const { effect } = adjustments[name];
  const amount = amountOf(adjust, name) / 100;
  if (effect.by === 'transfer') {
    const { slope, intercept } = effect.of(amount);
    const how = `type="linear" slope="${n(slope)}" intercept="${n(intercept)}"`;
    return `<feComponentTransfer>${['R', 'G', 'B'].map((c) => `<feFunc${c} ${how}/>`).join('')}</feComponentTransfer>`;
  }
  if (effect.by === 'matrix') {
    const m = effect.of(amount);
    const rows = [0, 3, 6].map(
      (i) =>
        `${m
          .slice(i, i + 3)
          .map(n)
          .join(' ')} 0 0`,
    );
    return `<feColorMatrix type="matrix" values="${rows.join(' ')} 0 0 0 1 0"/>`;
  }
  const kernel = [1, 2, 1, 2, 4, 2, 1, 2, 1].map((w, i) =>
    n((i === 4 ? 1 + amount : 0) - (amount * w) / 16),
  );
  return `<feConvolveMatrix order="3" kernelMatrix="${kernel.join(' ')}" divisor="1" edgeMode="duplicate" preserveAlpha="true"/>`;
}

/** The filter that adjusts a drawing of a size, as an element with an id. */
export const svgFilter = (id: string, adjust: Adjust, { width, height }: Size): string =>
  `<filter id="${id}" filterUnits="userSpaceOnUse" x="0" y="0" width="${width}" height="${height}"` +
  ` color-interpolation-filters="sRGB">` +
  `${activeIn(adjust)
    .map((name) => primitive(adjust, name))
    .join('')}</filter>`;
