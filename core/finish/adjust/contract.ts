/** Row-major 3 × 3: what red, green and blue become of red, green and blue. */
export type ColourMatrix = readonly [
  ...[number, number, number],
  ...[number, number, number],
  ...[number, number, number],
];

/** A linear transfer: what red, green and blue are multiplied by, and what is added. */
export interface Linear {
  slope: number;
  intercept: number;
}

/** What is done to each pixel by itself, or to it and those around it. Values are 0–1, in sRGB. */
export type Effect =
  | { by: 'transfer'; of: (amount: number) => Linear }
  | { by: 'matrix'; of: (amount: number) => ColourMatrix }
  | { by: 'neighbours' };

/** One way in which a picture is adjusted; amounts are whole percent. */
export interface Adjustment {
  label: string;
  /** The largest amount; the least is 0. */
  most: number;
  /** The amount that changes nothing. */
  none: number;
  /** Offered as on or off, though there is more between. */
  isSwitch?: boolean;
  effect: Effect;
  /** The same as a filter of the browser, for looking at it while it changes; null where it has none. */
  filter: ((percent: number) => string) | null;
}
