import { AppWindow } from 'lucide-react';
import { api } from '../../api/client';
import type { PagePlace } from './contract';
import { keepIn } from './keep';

export const program: PagePlace<'program'> = {
  icon: AppWindow,
  async do(shot, { program: by }) {
    const { id, path } = await keepIn(shot, null);
    await api.openCopy(id, by);
    return { path, by };
  },
};
