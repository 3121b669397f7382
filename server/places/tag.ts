import { tagMany } from '../tags/tags';
import type { ServerPlace } from './contract';

export const tag: ServerPlace<'tag'> = async ({ id }, { tags }) => {
  await tagMany({ shots: [id], add: tags, remove: [] });
  return { tags };
};
