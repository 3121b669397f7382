import { copyToDisplay } from '../display/clipboard';
import type { ServerPlace } from './contract';

/** Onto the clipboard of this computer. */
export const copy: ServerPlace<'copy'> = async ({ id, leaves }) => {
  await copyToDisplay(id, leaves.size ?? {});
  return null;
};
