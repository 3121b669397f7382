/** The names of settings that have a few values, each in one place. */
export const headShapes = ['solid', 'open', 'dot'] as const;
export type HeadShape = (typeof headShapes)[number];

export const tips = ['felt', 'nib', 'chalk', 'speckle', 'strew'] as const;
export type Tip = (typeof tips)[number];

export const countings = ['numbers', 'letters', 'roman'] as const;
export type Counting = (typeof countings)[number];

export const holes = ['box', 'oval'] as const;
export type Hole = (typeof holes)[number];

/** Outlines of a hidden area; a free one is drawn by hand. */
export const areaNames = ['box', 'oval', 'free'] as const;
export type AreaName = (typeof areaNames)[number];

/** Pointer shapes that can be drawn at any size. */
export const pointerShapes = ['arrow', 'hand', 'text', 'cross'] as const;
export type PointerShape = (typeof pointerShapes)[number];
