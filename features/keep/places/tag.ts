import { Tag } from 'lucide-react';
import { api } from '../../api/client';
import { onServer, type PagePlace } from './contract';

export const tag: PagePlace<'tag'> = {
  icon: Tag,
  async do(shot, { tags }) {
    await onServer(shot);
    await api.tagMany([shot.id], { add: tags });
    return { tags };
  },
};
