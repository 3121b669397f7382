import type { Upgrade } from './contract';

/** Version 4 may surround the picture (`finish.surround`); nothing that was there is another. */
export const from3to4: Upgrade = {};
