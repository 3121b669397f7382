/** Outlines of a hidden area; a free one is drawn by hand. */
export const areaNames = ['box', 'oval', 'free'] as const;
export type AreaName = (typeof areaNames)[number];
