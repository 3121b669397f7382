import type { Upgrade } from './contract';

/** Version 6 may say what the view of a clip follows (`follow`); nothing that was there is another. */
export const from5to6: Upgrade = {};
