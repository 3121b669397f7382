/** The names of settings that have a few values, each in one place. */
export const headShapes = ['solid', 'open', 'dot'] as const;
export type HeadShape = (typeof headShapes)[number];

export const tips = ['felt', 'nib', 'chalk', 'speckle', 'strew'] as const;
export type Tip = (typeof tips)[number];

export const countings = ['numbers', 'letters', 'roman'] as const;
export type Counting = (typeof countings)[number];

export const holes = ['box', 'oval'] as const;
export type Hole = (typeof holes)[number];
