import type { Upgrade } from './contract';

/**
 * Version 2 says of a mark that gets no edge `standsOut: false`, as the settings of its tool do;
 * version 1 said `plain: true`.
 */
export const from1to2: Upgrade = {
  mark({ plain, ...mark }) {
    return plain === undefined ? mark : { ...mark, standsOut: !plain };
  },
  field({ path, value, ...patch }) {
    if (path.at(-1) !== 'plain') return { ...patch, path, value };
    const to = [...path.slice(0, -1), 'standsOut'];
    return { ...patch, path: to, ...(value !== undefined && { value: !value }) };
  },
};
