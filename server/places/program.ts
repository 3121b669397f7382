import { openCopy } from '../programs/programs';
import type { ServerPlace } from './contract';
import { keepIn } from './keep';

export const program: ServerPlace<'program'> = async (shot, { program: by }) => {
  const { id, path } = await keepIn(shot, null);
  await openCopy(id, by);
  return { path, by };
};
