import type { Upgrade } from './contract';

/** Version 3 may say what is done to the whole picture (`finish`); nothing that was there is another. */
export const from2to3: Upgrade = {};
