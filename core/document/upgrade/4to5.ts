import type { Upgrade } from './contract';

/** Version 5 may say when a mark of a clip is seen (`time`); nothing that was there is another. */
export const from4to5: Upgrade = {};
